import { deliver, deliverBy } from '../assemble/deliver.ts';
import { scoreQuiz } from '../assemble/scoreQuiz.ts';
import type { AnswerPair } from '../compare/answers.ts';
import { near } from '../model/number.ts';
import type { Answers } from '../scoring/evaluate.ts';
import { answerTexts } from '../scoring/keyTexts.ts';
import { seeded } from '../scoring/random.ts';
import { seedOf } from '../scoring/seedOf.ts';
import {
  answeringOf,
  chosen,
  following,
  normal,
  SPREAD,
  type Answering,
  type QuizSide,
} from './answering.ts';

/** How the one candidate answers: by ability, everything right, everything wrong, or nothing at all. */
export const SHEET_WAYS = ['ability', 'right', 'wrong', 'blank'] as const;
export type SheetWay = (typeof SHEET_WAYS)[number];

/** What one candidate's answers come to on both sides. */
export interface BothSheet {
  readonly totals: { readonly source: number; readonly arrived: number };
  /** In the order in which they are set, those that differ first. */
  readonly rows: readonly {
    readonly source: string;
    /** Null where it did not arrive. */
    readonly arrived: string | null;
    readonly answer: readonly string[];
    readonly scores: { readonly source: number; readonly arrived: number | null };
    readonly differs: boolean;
  }[];
}

/**
 * One candidate sits what was sent and what arrived, set the same items and giving the same answers.
 * @param partners arrived item by source item
 */
export function sheetOfBoth(
  source: QuizSide,
  arrived: QuizSide,
  partners: ReadonlyMap<string, string>,
  { seed = '1', way = 'ability' }: { readonly seed?: string; readonly way?: SheetWay } = {},
): BothSheet {
  const [left, right] = [source, arrived].map(({ holding }) => new Map(holding.items.map((i) => [i.id, i])));
  const answering = answeringOf(source, arrived, partners, left!, right!, seed);
  const own = seedOf(seed);
  const random = seeded(own);
  const ability = SPREAD * normal(random);
  const set = deliver(source.quiz, own);
  const [given, there] = [new Map<string, Answers>(), new Map<string, Answers>()];
  for (const { item } of set) {
    const how = answering.get(item);
    const pair = how && !given.has(item) ? answerOf(how, way, ability, random) : null;
    if (!how || !pair) continue;
    given.set(item, pair.left);
    if (how.arrived !== null) there.set(how.arrived, pair.right);
  }
  const other = deliverBy(arrived.quiz, following(set, partners));
  const a = scoreQuiz(source.quiz, source.holding.items, given, own, { set });
  const b = scoreQuiz(arrived.quiz, arrived.holding.items, there, own, { set: other });
  const scores = new Map(b.items.map((i) => [i.item, i.score]));
  const rows = a.items.map(({ item, score }) => {
    const partner = partners.get(item);
    const found = partner === undefined ? null : (scores.get(partner) ?? null);
    const answers = given.get(item);
    const of = left!.get(item);
    return {
      source: item,
      arrived: partner ?? null,
      answer: answers && of ? answerTexts(of, answers) : [],
      scores: { source: score, arrived: found },
      differs: found === null || !near(found, score),
    };
  });
  return {
    totals: { source: a.total, arrived: b.total },
    rows: [...rows.filter((r) => r.differs), ...rows.filter((r) => !r.differs)],
  };
}

function answerOf(how: Answering, way: SheetWay, ability: number, random: () => number): AnswerPair | null {
  if (way === 'blank') return null;
  if (way === 'ability') return chosen(how, ability, random);
  return chosen(how, way === 'right' ? Infinity : -Infinity, random);
}
