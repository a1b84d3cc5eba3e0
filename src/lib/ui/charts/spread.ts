import type { Distribution } from '@alforja/core';
import { count } from '../format';

/** More columns than these tell no more, and cannot be told apart. */
const MOST = 24;

export interface Column {
  readonly name: string;
  readonly chance: number;
}

/** Values as columns of a picture: one each where there are few, else ranges of equal width. */
export const columnsOf = (of: Distribution): Column[] =>
  columnsFor([of]).map(({ name, chances }) => ({ name, chance: chances[0]! }));

/** The same columns for two spreads. */
export const columnsOfBoth = (
  first: Distribution,
  second: Distribution,
): { readonly name: string; readonly chances: readonly [number, number] }[] =>
  columnsFor([first, second]).map(({ name, chances }) => ({ name, chances: [chances[0]!, chances[1]!] }));

function columnsFor(all: readonly Distribution[]): { name: string; chances: number[] }[] {
  const values = [...new Set(all.flatMap((d) => d.values))].sort((a, b) => a - b);
  if (values.length <= MOST) {
    const of = all.map((d) => new Map(d.values.map((v, at) => [v, d.chances[at]!])));
    return values.map((value) => ({ name: count(value), chances: of.map((m) => m.get(value) ?? 0) }));
  }
  const [low, high] = [values[0]!, values.at(-1)!];
  const width = niceWidth((high - low) / MOST);
  const from = Math.floor(low / width) * width;
  const last = Math.floor((high - from) / width);
  const sums = all.map(() => new Array<number>(last + 1).fill(0));
  all.forEach((d, n) =>
    d.values.forEach((value, at) => (sums[n]![Math.floor((value - from) / width)]! += d.chances[at]!)),
  );
  return Array.from({ length: last + 1 }, (_, at) => ({
    name: `${count(from + at * width)}–${count(from + (at + 1) * width)}`,
    chances: sums.map((s) => s[at]!),
  }));
}

/** The next of 1, 2 and 5 times a power of ten. */
function niceWidth(least: number): number {
  const power = 10 ** Math.floor(Math.log10(least));
  return power * [1, 2, 5, 10].find((n) => n * power >= least)!;
}

/** "45 %", "0.3 %", "less than 0.1 %". */
export function percent(chance: number): string {
  const n = 100 * chance;
  if (n > 0 && n < 0.1) return 'less than 0.1 %';
  if (n < 100 && n > 99.9) return 'over 99.9 %';
  return `${count(n >= 10 || Number.isInteger(n) ? Math.round(n) : Math.round(n * 10) / 10)} %`;
}

/** What is counted from chances is no truer for more figures. */
export const about = (n: number): string => count(Math.round(n * 10) / 10);
