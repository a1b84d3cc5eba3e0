import { nameOf, quizItems, sheetOfBoth, simulate, type SheetWay } from '@alforja/core';
import type { BothView } from '../../shared/quizzes.ts';
import { sidesOf, type ArrivalInput } from './arriving.ts';
import type { Progress } from './progress.ts';

export interface BothAsked {
  readonly arrival: ArrivalInput;
  /** The quiz by its id on each side. */
  readonly source: string;
  readonly arrived: string;
  /** Arrived items by source items. */
  readonly pairs: readonly (readonly [source: string, arrived: string])[];
  readonly seed: string;
  readonly way: SheetWay;
}

/** Quizzes of more questions are not simulated: trying each answer of each of them takes too long to wait for. */
const MOST_TRIED = 2000;
const MOST_NAMED = 50;

/** One candidate, and many, sit what was sent and what arrived with the same answers. */
export async function bothSides(asked: BothAsked, progress: Progress): Promise<BothView> {
  const { planned, there } = await sidesOf(asked.arrival, progress);
  const source = planned.quizzes.find((q) => q.id === asked.source);
  const arrived = there.quizzes.find((q) => q.id === asked.arrived);
  if (!source || !arrived) throw new Error('That quiz is not there on both sides any more.');
  const sides = [
    { holding: planned, quiz: source },
    { holding: there, quiz: arrived },
  ] as const;
  const partners = new Map(asked.pairs);
  const { seed, way } = asked;
  progress('Answering on both sides', 0, 0);
  const sheet = sheetOfBoth(...sides, partners, { seed, way });
  const many = new Set(quizItems(source)).size > MOST_TRIED ? null : simulate(...sides, partners, { seed });
  const items = new Map(planned.items.map((i) => [i.id, nameOf(i)]));
  return {
    title: source.title || source.id,
    arrivedTitle: arrived.title || arrived.id,
    seed,
    way,
    sheet: {
      ...sheet.totals,
      rows: sheet.rows.map((r) => ({
        name: items.get(r.source) ?? r.source,
        answer: r.answer,
        source: r.scores.source,
        arrived: r.scores.arrived,
        differs: r.differs,
      })),
    },
    many: many && {
      candidates: many.candidates,
      differing: many.differing,
      ...many.totals,
      items: many.items.slice(0, MOST_NAMED).map((i) => ({
        name: items.get(i.source) ?? i.source,
        missing: i.arrived === null,
        candidates: i.candidates,
        mean: i.mean,
      })),
    },
  };
}
