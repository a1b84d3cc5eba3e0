import type { Holding, Item } from '../model/holding.ts';
import { plainNumber, tidyNumber } from '../model/number.ts';
import { own } from '../model/own.ts';
import { interactionsOf } from '../model/visit.ts';
import { nameOf, opening } from '../model/plainText.ts';
import { keyTexts } from '../scoring/keyTexts.ts';
import { kindOf } from '../report/kind.ts';
import { recognise, type Recognised } from '../scoring/recognise.ts';

/** One side's line in the two-pouch view. */
export interface PouchRow {
  readonly id: string;
  /** Its place in the list, from 1. */
  readonly n: number;
  readonly name: string;
  readonly kind: string;
  readonly key: string;
  readonly points: number;
}

/** What one side holds in all. */
export interface PouchTotals {
  readonly items: number;
  readonly points: number;
  readonly quizzes: number;
  readonly banks: number;
  readonly draws: number;
  readonly files: number;
  readonly rubrics: number;
}

/** The longest key that a row shows, in characters. */
const LONGEST_KEY = 24;

/** What a row says of what its item asks. */
export type PouchLine = Pick<PouchRow, 'name' | 'kind' | 'key'>;

export const pouchRows = (items: readonly Item[]): PouchRow[] =>
  items.map((item, at) => ({
    id: item.id,
    n: at + 1,
    ...(known.get(item) ?? lineOf(item)),
    points: item.points,
  }));

const lineOf = (item: Item): PouchLine => ({
  name: nameOf(item),
  kind: kindOf(item),
  key: shortKey(item, recognise(item)),
});

export const totalPoints = (items: readonly Pick<Item, 'points'>[]): number =>
  tidyNumber(items.reduce((sum, i) => sum + i.points, 0));

export const totalsOf = (holding: Holding): PouchTotals => ({
  items: holding.items.length,
  points: totalPoints(holding.items),
  quizzes: holding.quizzes.length,
  banks: holding.banks.length,
  draws: holding.quizzes.reduce((sum, q) => sum + q.sections.filter((s) => s.draw !== null).length, 0),
  files: holding.files.length,
  rubrics: holding.rubrics.length,
});

/** Lines that were worked out before. */
const known = new WeakMap<Item, PouchLine>();

/** Says what the line of an item came to when it was read, so that nothing is run once more. */
export const knowLine = (item: Item, line: PouchLine): unknown => known.set(item, line);

/** The key in a few characters: letters for choices, the value for numbers, the first answer for text. */
export function shortKey(item: Item, recognised: Recognised): string {
  const letters = interactionsOf(item).flatMap((i) => {
    if (i.kind !== 'choice') return [];
    const right = own(recognised.key, i.responseId) ?? [];
    return i.choices.flatMap((c, at) => (right.includes(c.id) ? [letter(at)] : []));
  });
  if (letters.length > 0) return letters.join(', ');
  const { shape } = recognised;
  if (shape.kind === 'numeric' && shape.tolerance && shape.stated) {
    const half = Number(((shape.tolerance.high - shape.tolerance.low) / 2).toPrecision(6));
    return `${plainNumber(shape.value)} ± ${plainNumber(half)}`;
  }
  return opening(keyTexts(item, recognised)[0] ?? '', LONGEST_KEY);
}

/** A, B … Z, then numbers. */
const letter = (at: number): string => (at < 26 ? String.fromCharCode(65 + at) : String(at + 1));
