import { tidyNumber } from '../model/number.ts';

/** How likely each value of something is; values in ascending order, chances that add up to 1. */
export interface Distribution {
  readonly values: readonly number[];
  readonly chances: readonly number[];
  readonly mean: number;
  /** Standard deviation of all candidates, not of a sample. */
  readonly deviation: number;
}

export type Chances = ReadonlyMap<number, number>;

/** Too unlikely to be told from the arithmetic that found it. */
const NOTHING = 1e-15;

/** From chances by value; values that differ only in their binary tail are one. */
export function distributionOf(chances: Chances): Distribution {
  const tidy = new Map<number, number>();
  for (const [value, chance] of chances) {
    const at = tidyNumber(value);
    tidy.set(at, (tidy.get(at) ?? 0) + chance);
  }
  const rows = [...tidy].filter(([, chance]) => chance > NOTHING).sort(([a], [b]) => a - b);
  const mean = rows.reduce((sum, [value, chance]) => sum + value * chance, 0);
  const variance = rows.reduce((sum, [value, chance]) => sum + (value - mean) ** 2 * chance, 0);
  return {
    values: rows.map(([value]) => value),
    chances: rows.map(([, chance]) => chance),
    mean: tidyNumber(mean),
    deviation: tidyNumber(Math.sqrt(Math.max(0, variance))),
  };
}

/** What was met in so many candidates, each equally likely. */
export function distributionOfSample(values: readonly number[]): Distribution {
  const counts = new Map<number, number>();
  for (const v of values) counts.set(v, (counts.get(v) ?? 0) + 1 / values.length);
  return distributionOf(counts);
}

export const certain = (value: number): Chances => new Map([[value, 1]]);

/** The sum of two things that do not depend on one another. */
export function sumOf(a: Chances, b: Chances): Map<number, number> {
  const out = new Map<number, number>();
  for (const [x, p] of a)
    for (const [y, q] of b) {
      const value = tidyNumber(x + y);
      out.set(value, (out.get(value) ?? 0) + p * q);
    }
  return out;
}

/** More different sums than this are no picture any more, and cost time; so do more steps. */
const MAX_SUMS = 20_000;
const MAX_STEPS = 20_000_000;

/**
 * The sum over the items of a draw without replacement, exactly: value by value, as many items of it are drawn as the
 * hypergeometric distribution has it, given how many are still wanted among those left.
 * @param worth of each item of the pool
 * @returns null where there is more to count than can be counted
 */
export function drawnSum(worth: readonly number[], pick: number): Map<number, number> | null {
  const wanted = Math.min(pick, worth.length);
  const counts = new Map<number, number>();
  for (const value of worth) counts.set(value, (counts.get(value) ?? 0) + 1);
  // By how many were drawn so far: chances of each sum.
  let states = new Map<number, Map<number, number>>([[0, new Map([[0, 1]])]]);
  let left = worth.length;
  let steps = 0;
  for (const [value, count] of counts) {
    const next = new Map<number, Map<number, number>>();
    for (const [drawn, sums] of states)
      for (const [found, chance] of hypergeometric(left, count, wanted - drawn)) {
        let into = next.get(drawn + found);
        if (!into) next.set(drawn + found, (into = new Map()));
        for (const [sum, p] of sums) {
          const to = tidyNumber(sum + found * value);
          into.set(to, (into.get(to) ?? 0) + p * chance);
        }
        steps += sums.size;
        if (steps > MAX_STEPS || into.size > MAX_SUMS) return null;
      }
    states = next;
    left -= count;
  }
  return states.get(wanted) ?? new Map([[0, 1]]);
}

/** The sum over so many independent draws of one, put back each time. */
export function repeatedSum(worth: readonly number[], pick: number): Map<number, number> | null {
  if (worth.length === 0) return new Map([[0, 1]]);
  const one = new Map<number, number>();
  for (const v of worth) one.set(v, (one.get(v) ?? 0) + 1 / worth.length);
  let sum: Map<number, number> = new Map([[0, 1]]);
  for (let n = 0; n < pick; n++) {
    sum = sumOf(sum, one);
    if (sum.size > MAX_SUMS) return null;
  }
  return sum;
}

/**
 * How many of `marked` items are among `pick` of `of` (hypergeometric distribution).
 * @returns the chance of each number that is possible
 */
export function hypergeometric(of: number, marked: number, pick: number): Map<number, number> {
  const out = new Map<number, number>();
  const all = logChoose(of, pick);
  for (let found = Math.max(0, pick - (of - marked)); found <= Math.min(marked, pick); found++)
    out.set(found, Math.exp(logChoose(marked, found) + logChoose(of - marked, pick - found) - all));
  return out;
}

/** How often something of this chance happens in so many independent tries. */
export function binomial(tries: number, chance: number): Map<number, number> {
  if (chance <= 0 || chance >= 1) return new Map([[chance <= 0 ? 0 : tries, 1]]);
  const [yes, no] = [Math.log(chance), Math.log(1 - chance)];
  return new Map(
    Array.from({ length: tries + 1 }, (_, n) => [
      n,
      Math.exp(logChoose(tries, n) + n * yes + (tries - n) * no),
    ]),
  );
}

/** Sums of logarithms up to each number, made as far as they are asked for. */
const logs: number[] = [0];
function logFactorial(n: number): number {
  for (let k = logs.length; k <= n; k++) logs.push(logs[k - 1]! + Math.log(k));
  return logs[n]!;
}
const logChoose = (n: number, k: number): number => logFactorial(n) - logFactorial(k) - logFactorial(n - k);
