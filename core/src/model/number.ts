/** Twelve significant figures: what is left of a sum once its binary tail is gone. */
export const tidyNumber = (n: number): number =>
  Number.isInteger(n) && Math.abs(n) < WHOLE ? n : Number(n.toPrecision(12));
/** Smaller whole numbers have fewer figures than that. */
const WHOLE = 1e11;

/** The same number but for a tail of binary arithmetic: 0.1 + 0.2 is 0.3, and a third stays a third. */
export function withoutTail(n: number): number {
  const tidy = tidyNumber(n);
  return Math.abs(tidy - n) <= 8 * Number.EPSILON * Math.abs(n) ? tidy : n;
}

/** A number as people write it: no binary tail. */
export const plainNumber = (n: number): string => String(tidyNumber(n));

const EPSILON = 1e-9;

/** Equal but for the binary tail. */
export const near = (a: number, b: number): boolean =>
  Math.abs(a - b) <= EPSILON * Math.max(1, Math.abs(a), Math.abs(b));

/** Thousands set apart by commas: "1,000" is not 1. */
const GROUPED = /^[+-]?[1-9]\d{0,2}(?:,\d{3})+$/u;

/** Digits, signs, and what stands between digits. */
const begins = (c: number): boolean => (c >= 48 && c <= 57) || (c >= 43 && c <= 46);

/**
 * A finite number from text (XML Schema's double; a comma as decimal sign is met in the field), or null. No
 * hexadecimals, no thousands set apart: nobody can say what was meant.
 */
export function parseNumber(text: string | null | undefined): number | null {
  const trimmed = (text ?? '').trim();
  if (trimmed === '' || !begins(trimmed.charCodeAt(0))) return null;
  if (GROUPED.test(trimmed)) return null;
  if (!/^[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE][+-]?\d+)?$/u.test(trimmed)) return null;
  const parsed = Number(trimmed.replace(',', '.'));
  return Number.isFinite(parsed) ? parsed : null;
}
