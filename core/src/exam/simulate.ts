import { deliver, deliverBy, type Delivered } from '../assemble/deliver.ts';
import { scoreKnown } from '../assemble/scoreQuiz.ts';
import type { Item } from '../model/holding.ts';
import { near, tidyNumber } from '../model/number.ts';
import { evaluate, type Answers, type Result } from '../scoring/evaluate.ts';
import { seeded } from '../scoring/random.ts';
import { seedOf } from '../scoring/seedOf.ts';
import { answeringOf, chosen, following, normal, SPREAD, type QuizSide } from './answering.ts';
import { distributionOfSample, type Distribution } from './distribution.ts';

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
