import type { Distribution } from '@alforja/core';
import { count } from '../format';

/** More columns than these tell no more, and cannot be told apart. */
const MOST = 24;

export interface Column {
  readonly name: string;
  readonly chance: number;
}

/** Values as columns of a picture: one each where there are few, else ranges of equal width. */
export function columnsOf({ values, chances }: Distribution): Column[] {
  if (values.length <= MOST) return values.map((value, at) => ({ name: count(value), chance: chances[at]! }));
  const [low, high] = [values[0]!, values.at(-1)!];
  const width = niceWidth((high - low) / MOST);
  const from = Math.floor(low / width) * width;
  const sums = new Map<number, number>();
  values.forEach((value, at) => {
    const column = Math.floor((value - from) / width);
    sums.set(column, (sums.get(column) ?? 0) + chances[at]!);
  });
  const last = Math.max(...sums.keys());
  return Array.from({ length: last + 1 }, (_, at) => ({
    name: `${count(from + at * width)}–${count(from + (at + 1) * width)}`,
    chance: sums.get(at) ?? 0,
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
