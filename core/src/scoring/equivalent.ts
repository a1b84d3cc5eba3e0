import type { Item } from '../model/holding.ts';
import { near } from '../model/number.ts';
import { bestOf } from './best.ts';
import { concrete } from './concrete.ts';
import { rawScore, type Answers } from './evaluate.ts';
import { probesOf } from './probe.ts';

/** Whether two items score alike, and how sure that is. */
export type Equivalence =
  | { readonly same: true; readonly probes: number; readonly exhaustive: boolean }
  | {
      readonly same: false;
      /** The smallest answer that scores differently, and its scores in points. */
      readonly answers: Answers;
      readonly a: number;
      readonly b: number;
    };

/** Runs two items of the same responses on the probes of both. */
export function equivalent(a: Item, b: Item): Equivalence {
  const [left, right] = [concrete(a), concrete(b)];
  const sets = [probesOf(left, bestOf(left).answers), probesOf(right, bestOf(right).answers)];
  const answers = new Map(sets.flatMap((s) => s.answers).map((x) => [JSON.stringify(x), x]));
  let smallest: Answers | null = null;
  const score = (item: Item, given: Answers): number => rawScore(item, given) * item.scale;
  for (const given of answers.values()) {
    if (near(score(left, given), score(right, given))) continue;
    if (smallest === null || sizeOf(given) < sizeOf(smallest)) smallest = given;
  }
  if (smallest === null)
    return { same: true, probes: answers.size, exhaustive: sets.every((s) => s.exhaustive) };
  return { same: false, answers: smallest, a: score(left, smallest), b: score(right, smallest) };
}

/** Few values first, then short ones. */
export const sizeOf = (answers: Answers): number =>
  Object.values(answers).reduce((n, v) => n + v.length + String(v).length / 1000, 0);
