import type { Chance } from '../assemble/chance.ts';
import { deliver, deliverBy, type Delivered } from '../assemble/deliver.ts';
import { scoreKnown } from '../assemble/scoreQuiz.ts';
import { answersOf, type AnswerPair } from '../compare/answers.ts';
import { fileContents } from '../compare/side.ts';
import type { Holding, Item, Quiz } from '../model/holding.ts';
import { near, tidyNumber } from '../model/number.ts';
import { quizItems } from '../model/quizzes.ts';
import { evaluate, type Answers, type Result } from '../scoring/evaluate.ts';
import { seeded } from '../scoring/random.ts';
import { seedOf } from '../scoring/seedOf.ts';
import { distributionOfSample, type Distribution } from './distribution.ts';

/** A quiz with the holding it stands in. */
export interface QuizSide {
  readonly holding: Holding;
  readonly quiz: Quiz;
}

export interface Simulation {
  readonly candidates: number;
  readonly seed: string;
  readonly totals: { readonly source: Distribution; readonly arrived: Distribution };
  /** Candidates whose totals differ. */
  readonly differing: number;
  /** Items that are not worth the same to everybody, those that tell most first. */
  readonly items: readonly {
    readonly source: string;
    /** Null where it did not arrive. */
    readonly arrived: string | null;
    /** Candidates who were given other points for it, and by how much on average. */
    readonly candidates: number;
    readonly mean: number;
  }[];
  /** Answers given to items, on either side. */
  readonly runs: number;
}

export const SIMULATED = 1000;
/** Ability and difficulty are spread alike (a standard normal distribution, common practice). */
const SPREAD = 1;

/**
 * The chance of a right answer in the Rasch model: 1 / (1 + exp(difficulty - ability)), both in logits (Rasch 1960,
 * "Probabilistic models for some intelligence and attainment tests").
 */
export const raschChance = (ability: number, difficulty: number): number =>
  1 / (1 + Math.exp(difficulty - ability));

/** A number of the standard normal distribution from two of the uniform one (Box and Muller 1958). */
export const normal = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** Answers to one item on both sides: those that are right in the source, and the rest. */
interface Answering {
  readonly arrived: string | null;
  readonly right: readonly AnswerPair[];
  readonly wrong: readonly AnswerPair[];
  readonly difficulty: number;
}

/**
 * Simulated candidates sit what was sent and what arrived, with the same answers: the first knows everything, the
 * second hands in nothing, the others answer rightly by the Rasch model, else with one of the answers that are wrong,
 * partly right, just beside the edge, or none. Each is set the same items on both sides, as far as they arrived.
 * @param partners arrived item by source item
 */
export function simulate(
  source: QuizSide,
  arrived: QuizSide,
  partners: ReadonlyMap<string, string>,
  { candidates = SIMULATED, seed = '1' } = {},
): Simulation {
  const [left, right] = [source, arrived].map(({ holding }) => new Map(holding.items.map((i) => [i.id, i])));
  const answering = answeringOf(source, arrived, partners, left!, right!, seed);
  const [runLeft, runRight] = [memo(), memo()];
  const totals: { source: number[]; arrived: number[] } = { source: [], arrived: [] };
  const tally = new Map<string, { candidates: number; sum: number }>();
  let runs = 0;
  let differing = 0;
  for (let n = 0; n < candidates; n++) {
    const own = seedOf(`${seed}/${n}`);
    const random = seeded(own);
    const ability = n === 0 ? Infinity : SPREAD * normal(random);
    const set = deliver(source.quiz, own);
    const [given, there] = [new Map<string, Answers>(), new Map<string, Answers>()];
    for (const { item } of set) {
      const how = answering.get(item);
      if (!how || given.has(item) || n === 1) continue;
      const pair = chosen(how, ability, random);
      if (!pair) continue;
      given.set(item, pair.left);
      if (how.arrived !== null) there.set(how.arrived, pair.right);
    }
    const other = deliverBy(arrived.quiz, following(set, partners));
    const a = scoreKnown(source.quiz, left!, given, own, { set, run: runLeft });
    const b = scoreKnown(arrived.quiz, right!, there, own, { set: other, run: runRight });
    runs += set.length + other.length;
    totals.source.push(a.total);
    totals.arrived.push(b.total);
    if (!near(a.total, b.total)) differing += 1;
    const scores = new Map(b.items.map((i) => [i.item, i.score]));
    for (const { item, score } of a.items) {
      const partner = partners.get(item);
      const change = (partner === undefined ? 0 : (scores.get(partner) ?? 0)) - score;
      if (near(change, 0)) continue;
      const had = tally.get(item) ?? { candidates: 0, sum: 0 };
      tally.set(item, { candidates: had.candidates + 1, sum: had.sum + change });
    }
  }
  return {
    candidates,
    seed,
    totals: { source: distributionOfSample(totals.source), arrived: distributionOfSample(totals.arrived) },
    differing,
    items: [...tally]
      .map(([id, t]) => ({
        source: id,
        arrived: partners.get(id) ?? null,
        candidates: t.candidates,
        mean: tidyNumber(t.sum / t.candidates),
      }))
      .sort((x, y) => Math.abs(y.mean * y.candidates) - Math.abs(x.mean * x.candidates)),
    runs,
  };
}

function answeringOf(
  source: QuizSide,
  arrived: QuizSide,
  partners: ReadonlyMap<string, string>,
  left: ReadonlyMap<string, Item>,
  right: ReadonlyMap<string, Item>,
  seed: string,
): Map<string, Answering> {
  const files = [fileContents(source.holding), fileContents(arrived.holding)] as const;
  const out = new Map<string, Answering>();
  for (const id of new Set(quizItems(source.quiz))) {
    const item = left.get(id);
    if (!item) continue;
    const partner = partners.get(id);
    const other = (partner === undefined ? undefined : right.get(partner)) ?? item;
    const { pairs, source: scored } = answersOf({ item, files: files[0] }, { item: other, files: files[1] });
    const most = scored.recognised.best.raw;
    const isRight = ({ left: answers }: AnswerPair): boolean =>
      most > 0 && near(evaluate(scored.item, answers).raw, most);
    out.set(id, {
      arrived: partner ?? null,
      right: pairs.filter(isRight),
      wrong: pairs.filter((p) => !isRight(p)),
      difficulty: SPREAD * normal(seeded(seedOf(`${seed}/difficulty/${id}`))),
    });
  }
  return out;
}

function chosen(
  { right, wrong, difficulty }: Answering,
  ability: number,
  random: () => number,
): AnswerPair | null {
  const knows = right.length > 0 && random() < raschChance(ability, difficulty);
  const from = knows || wrong.length === 0 ? right : wrong;
  return from[Math.floor(random() * from.length)] ?? null;
}

/** Chance that draws, on the other side, what was drawn on this one, as far as it is there. */
function following(set: readonly Delivered[], partners: ReadonlyMap<string, string>): Chance {
  const wanted = new Set(set.map((d) => partners.get(d.item)));
  return {
    pick: (_, pool, count) => {
      const here = pool.filter((p) => wanted.has(nameOf(p)));
      // What did not arrive leaves room for others.
      const rest = here.length < count ? pool.filter((p) => !wanted.has(nameOf(p))) : [];
      return [...here, ...rest].slice(0, count);
    },
    order: (_, list) => list,
  };
}

/** What a draw chooses from goes by the item it sets: references of tests have names of their own. */
const nameOf = (one: { readonly id: string; readonly item?: string | null }): string =>
  'item' in one && typeof one.item === 'string' ? one.item : one.id;

/** Each distinct answer of an item is run once; parameterised items are run as the first candidate gets them. */
function memo(): (one: Delivered, item: Item, answers: Answers) => Result {
  const known = new Map<Item, Map<Answers, Result>>();
  return (_, item, answers) => {
    let results = known.get(item);
    if (!results) known.set(item, (results = new Map()));
    const key = Object.keys(answers).length === 0 ? NOTHING : answers;
    let result = results.get(key);
    if (!result) results.set(key, (result = evaluate(item, answers)));
    return result;
  };
}

const NOTHING: Answers = {};
