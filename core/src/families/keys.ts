import type { Item } from '../model/holding.ts';
import { near, parseNumber } from '../model/number.ts';
import { keyTexts } from '../scoring/keyTexts.ts';
import { recognise, shapeIn } from '../scoring/recognise.ts';
import type { Family } from './families.ts';
import type { Shape } from './shape.ts';

/** A replica whose key is not what its numbers give. */
export interface StaleKey {
  readonly item: Item;
  readonly key: string;
  /** What the others' rule gives for its numbers; null where only an equal key tells. */
  readonly expected: number | null;
  /** The replica whose key it has, where it has another's. */
  readonly as: Item | null;
}

/** A replica in numbers: those of its text, its key, and how far off the key may be. */
interface Row {
  readonly item: Item;
  readonly numbers: readonly number[];
  readonly key: number;
  readonly slack: number;
}

/** Numbers of a text that are tried in formulas. */
const MAX_NUMBERS = 6;
/** With fewer replicas, a formula with a factor of its own fits by chance. */
const ENOUGH_FOR_FACTORS = 4;
/** Minutes in hours, metres in kilometres, per cent, and halves: factors that exercises have. */
const FACTORS = [1, 60, 1 / 60, 3600, 1 / 3600, 2, 1 / 2, 10, 1 / 10, 100, 1 / 100, 1000, 1 / 1000];
const FULL_CIRCLE = 360;

/**
 * Replicas of a family whose numbers are others but whose key is not: either one rule of the numbers gives the keys
 * of all but one, or two have the same key and no others have. Only families with one number as key.
 */
export function staleKeys(family: Pick<Family, 'shapes'>): StaleKey[] {
  const rows = rowsOf(family);
  if (rows === null) return [];
  return byRule(rows) ?? byEqualKey(rows, new Set(rows.map((r) => r.key)).size);
}

/** Whether one rule of the numbers gives the keys of all replicas; then equal ones are so by chance. */
export function oneRule(family: Pick<Family, 'shapes'>): boolean {
  const rows = rowsOf(family);
  return rows !== null && byRule(rows)?.length === 0;
}

/** Replicas in numbers; null where there are too few, or none to tell by. */
function rowsOf({ shapes }: Pick<Family, 'shapes'>): readonly Row[] | null {
  const rows = shapes.flatMap((s): Row[] => rowOf(s) ?? []);
  if (rows.length !== shapes.length || rows.length < 3) return null;
  if (new Set(rows.map((r) => r.numbers.length)).size !== 1 || rows[0]!.numbers.length === 0) return null;
  // Where the key never changes it does not depend on what does.
  return new Set(rows.map((r) => r.key)).size === 1 ? null : rows;
}

/** The number that is right, and the slack that it is written or accepted with. */
export function numericKey(item: Item): { readonly key: number; readonly slack: number } | null {
  const recognised = recognise(item);
  const texts = keyTexts(item, recognised);
  if (texts.length !== 1) return null;
  const found = /^[^\p{Nd}+\-\u2212]{0,3}([-+\u2212]?\p{Nd}+(?:[.,]\p{Nd}+)?)(?!.*\p{Nd})/u.exec(texts[0]!);
  const key = parseNumber(found?.[1]!.replace('\u2212', '-') ?? '');
  if (key === null) return null;
  const [response] = item.responses;
  const shape = response && shapeIn(recognised.shape, response.id);
  const tolerance = shape?.kind === 'numeric' ? shape.tolerance : null;
  const figures = /[.,](\p{Nd}+)$/u.exec(found![1]!)?.[1]?.length ?? 0;
  const written = 0.5 * 10 ** -figures;
  return { key, slack: Math.max(written, tolerance ? (tolerance.high - tolerance.low) / 2 : 0) };
}

function rowOf(shape: Shape): [Row] | null {
  const found = numericKey(shape.item);
  const numbers = shape.numbers.flat().map((n) => (typeof n === 'number' ? n : NaN));
  return found && [{ item: shape.item, numbers: numbers.slice(0, MAX_NUMBERS), ...found }];
}

type Formula = (numbers: readonly number[]) => number;

/** Sums, differences, products and quotients of two or three of so many numbers, and what goes round a circle. */
function* formulas(count: number, factors: readonly number[]): Generator<Formula> {
  for (let a = 0; a < count; a++) {
    for (const f of factors) yield (n) => f * n[a]!;
    for (let b = 0; b < count; b++) {
      if (a === b) continue;
      if (a < b) {
        yield (n) => n[a]! + n[b]!;
        yield (n) => (n[a]! + n[b]!) % FULL_CIRCLE;
        for (const f of factors) yield (n) => f * n[a]! * n[b]!;
      }
      yield (n) => n[a]! - n[b]!;
      yield (n) => (n[a]! - n[b]! + FULL_CIRCLE) % FULL_CIRCLE;
      for (const f of factors) yield (n) => (f * n[a]!) / n[b]!;
      for (let c = b + 1; c < count; c++) {
        if (c === a) continue;
        if (a < b) yield (n) => n[a]! + n[b]! + n[c]!;
        yield (n) => n[a]! - n[b]! - n[c]!;
        yield (n) => n[b]! + n[c]! - n[a]!;
        if (a < b) for (const f of factors) yield (n) => f * n[a]! * n[b]! * n[c]!;
        for (const f of factors) yield (n) => (f * n[b]! * n[c]!) / n[a]!;
      }
    }
  }
}

/** Whom a rule leaves out that holds for all the others; nobody where one holds for all; null where none does. */
function byRule(rows: readonly Row[]): StaleKey[] | null {
  const factors = rows.length >= ENOUGH_FOR_FACTORS ? FACTORS : [1];
  let found: StaleKey | null = null;
  for (const formula of formulas(rows[0]!.numbers.length, factors)) {
    let odd: Row | null = null;
    let misses = 0;
    for (const row of rows) {
      const given = formula(row.numbers);
      if (Math.abs(given - row.key) <= row.slack || near(given, row.key)) continue;
      odd = row;
      if (++misses > 1) break;
    }
    if (misses === 0) return [];
    if (misses === 1 && odd && !found)
      found = { item: odd.item, key: String(odd.key), expected: formula(odd.numbers), as: null };
  }
  return found && [found];
}

function byEqualKey(rows: readonly Row[], distinct: number): StaleKey[] {
  if (distinct !== rows.length - 1) return [];
  for (const [at, row] of rows.entries()) {
    const other = rows.slice(0, at).find((r) => r.key === row.key);
    if (other && !other.numbers.every((n, k) => Object.is(n, row.numbers[k])))
      return [{ item: row.item, key: String(row.key), expected: null, as: other.item }];
  }
  return [];
}
