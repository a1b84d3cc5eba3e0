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

/** More different sums than this are no picture any more, and cost time. */
const MAX_SUMS = 20_000;

/**
 * The sum over the items of a draw without replacement, exactly: item by item, an item is drawn with the chance of
 * those still wanted among those left (sequential sampling; hypergeometric in all).
 * @param worth of each item of the pool
 * @returns null where there are more different sums than can be counted
 */
export function drawnSum(worth: readonly number[], pick: number): Map<number, number> | null {
  const wanted = Math.min(pick, worth.length);
  // By how many were drawn so far: chances of each sum.
  let states: Map<number, number>[] = [new Map([[0, 1]])];
  for (const [at, value] of worth.entries()) {
    const left = worth.length - at;
    const next: Map<number, number>[] = [];
    let sums = 0;
    const add = (drawn: number, sum: number, chance: number): void => {
      if (chance <= 0) return;
      const state = (next[drawn] ??= new Map());
      if (!state.has(sum)) sums += 1;
      state.set(sum, (state.get(sum) ?? 0) + chance);
    };
    for (const [drawn, state] of states.entries()) {
      if (!state) continue;
      const chance = (wanted - drawn) / left;
      for (const [sum, p] of state) {
        add(drawn + 1, tidyNumber(sum + value), p * chance);
        add(drawn, sum, p * (1 - chance));
      }
    }
    if (sums > MAX_SUMS) return null;
    states = next;
  }
  return states[wanted] ?? new Map([[0, 1]]);
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
 * @returns the chance of each number
 */
export function hypergeometric(of: number, marked: number, pick: number): Map<number, number> {
  const worth = Array.from({ length: of }, (_, at) => (at < marked ? 1 : 0));
  return drawnSum(worth, pick)!;
}
