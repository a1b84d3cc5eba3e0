import type { Item, Quiz } from '../model/holding.ts';
import { near, tidyNumber } from '../model/number.ts';
import { itemWeights } from '../model/places.ts';
import { own } from '../model/own.ts';
import type { SessionControl, TestPart, TestSection } from '../model/testStructure.ts';
import { concrete } from '../scoring/concrete.ts';
import { evaluate, type Answers, type Result } from '../scoring/evaluate.ts';
import { seeded, shuffled } from '../scoring/random.ts';
import { asText } from '../scoring/value.ts';
import { deliver, type Delivered } from './deliver.ts';
import { drawnWeights, scoreKnown } from './scoreQuiz.ts';
import { withSettledChoices } from './shuffleChoices.ts';

/** An item as one candidate gets it, with what the quiz lets them do with it. */
export interface SetItem {
  readonly delivered: Delivered;
  /** Parameters filled in, choices in this candidate's order. */
  readonly item: Item;
  readonly points: number;
  /** The section of the quiz it stands in, from 0. */
  readonly section: number;
  /** Whether there is no way back (QTI 2.1, "navigationMode"). */
  readonly linear: boolean;
  /** Whether each answer is handed in by itself (QTI 2.1, "submissionMode"). */
  readonly individual: boolean;
  /** How often it can be answered; null without end. */
  readonly attempts: number | null;
  /** Whether what an answer is told is shown at once. */
  readonly told: boolean;
}

/** What the seed sets, in order (QTI 2.1, "itemSessionControl": one attempt and no feedback unless it says otherwise). */
export function setFor(quiz: Quiz, items: readonly Item[], seed: number): SetItem[] {
  const byId = new Map(items.map((i) => [i.id, i]));
  const worth = worthIn(quiz);
  const sections = new Map<string, number>();
  for (const [at, { id }] of quiz.sections.entries()) if (!sections.has(id)) sections.set(id, at);
  return deliver(quiz, seed).flatMap((delivered, at): SetItem[] => {
    const given = byId.get(delivered.item);
    if (!given) return [];
    const random = seeded(seed + at + 1);
    const item = withSettledChoices(concrete(given, seed), (_, loose) => shuffled(loose, random));
    const stages = [...delivered.within, ...(delivered.node ? [delivered.node] : [])];
    const sessions = stages.map((s) => s.session).filter((s) => s !== null);
    const part = delivered.within.find(isPart);
    const individual = part?.submissionMode === 'individual';
    return [
      {
        delivered,
        item,
        points: delivered.pointsEach ?? tidyNumber(given.points * worth(given.id)),
        section: sections.get(delivered.sections.at(-1) ?? '') ?? 0,
        linear: part?.navigationMode === 'linear',
        individual: individual || given.adaptive,
        attempts: given.adaptive ? null : individual ? attemptsIn(sessions) : 1,
        told: given.adaptive || (individual && flagIn(sessions, 'showFeedback')),
      },
    ];
  });
}

const isPart = (stage: TestPart | TestSection): stage is TestPart => 'navigationMode' in stage;

/** The innermost that says something has the last word. */
function attemptsIn(sessions: readonly SessionControl[]): number | null {
  const said = sessions.map((s) => s.maxAttempts).filter((n) => n !== null);
  const last = said.at(-1) ?? 1;
  return last === 0 ? null : last;
}
const flagIn = (sessions: readonly SessionControl[], flag: string): boolean =>
  sessions
    .map((s) => own(s.flags, flag))
    .filter((f) => f !== undefined)
    .at(-1) ?? false;

/** How many times an item counts in a quiz: in its own points, or by its weight in the draw of a test. */
function worthIn(quiz: Quiz): (item: string) => number {
  const own = itemWeights([quiz]);
  const drawn = drawnWeights(quiz);
  return (item) => (own.has(item) ? 1 : (drawn.get(item) ?? 1));
}

/** What a candidate's answers to an item came to. */
export interface SatItem {
  readonly set: SetItem;
  readonly ref: string;
  readonly item: string;
  readonly score: number;
  readonly points: number;
  /** False where a condition of the test left it out. */
  readonly presented: boolean;
  /** No further answer counts: the attempts are used up, or an adaptive item is complete, or it is right. */
  readonly done: boolean;
  readonly result: Result;
}

export interface Sat {
  readonly total: number;
  readonly passed: boolean | null;
  readonly items: readonly SatItem[];
}

/**
 * A candidate's whole way through a quiz so far: each item's answers, attempt by attempt, run by its program; adaptive
 * ones build on the attempt before (QTI 2.1, "adaptive"), of others the last one counts.
 * @param attempts by item, oldest first
 */
export function sit(
  quiz: Quiz,
  items: readonly Item[],
  seed: number,
  attempts: ReadonlyMap<string, readonly Answers[]>,
): Sat {
  const set = setFor(quiz, items, seed);
  const shown = new Map(set.map((s) => [s.item.id, s.item]));
  const results = new Map(set.map((s) => [s.item.id, resultOf(s.item, attempts.get(s.item.id) ?? [])]));
  const last = new Map(
    [...attempts].flatMap(([id, list]) => (list.length > 0 ? [[id, list.at(-1)!] as const] : [])),
  );
  const score = scoreKnown(quiz, shown, last, seed, {
    set: set.map((s) => s.delivered),
    run: (_, item) => results.get(item.id)!,
  });
  const scores = new Map(score.items.map((i) => [i.ref, i]));
  return {
    total: score.total,
    passed: score.passed,
    items: set.map((one): SatItem => {
      const { delivered, item, points, attempts: most } = one;
      const { ref, item: id } = delivered;
      const result = results.get(id)!;
      const tried = attempts.get(id)?.length ?? 0;
      const of = scores.get(ref);
      const complete = item.adaptive
        ? asText(own(result.outcomes, 'completionStatus') ?? null) === 'completed'
        : item.points > 0 && near(result.score, item.points);
      return {
        set: one,
        ref,
        item: id,
        score: of?.score ?? 0,
        points,
        presented: of?.presented ?? false,
        done: tried > 0 && (complete || (most !== null && tried >= most)),
        result,
      };
    }),
  };
}

/** The result of the last attempt; of adaptive items each starts where the one before ended. */
function resultOf(item: Item, attempts: readonly Answers[]): Result {
  let result = evaluate(item, {});
  attempts.forEach((answers, at) => {
    result = evaluate(item, answers, {
      attempts: at + 1,
      ...(item.adaptive && at > 0 ? { previous: result.outcomes } : {}),
    });
  });
  return result;
}
