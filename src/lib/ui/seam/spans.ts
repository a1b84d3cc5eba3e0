import type { Difference } from '@alforja/core';

/** A span of numbers that is accepted, or one number alone. */
export interface Span {
  readonly low: number;
  readonly high: number;
  /** The number that is named; null where only a range is. */
  readonly value: number | null;
  readonly includesLow: boolean;
  readonly includesHigh: boolean;
}

type ToleranceDifference = Extract<Difference, { facet: 'tolerance' }>;
type Said = ToleranceDifference['from'];

/** The span that one side accepts; null where it is no single number. */
function spanOf(said: Said): Span | null {
  if ('words' in said || said.shape.kind !== 'numeric') return null;
  const { value, stated, tolerance } = said.shape;
  return tolerance === null
    ? { low: value, high: value, value, includesLow: true, includesHigh: true }
    : { ...tolerance, value: stated ? value : null };
}

export interface SpanPair {
  readonly from: Span;
  readonly to: Span;
  /** Both sides are drawn to one measure. */
  readonly least: number;
  readonly most: number;
  /** The answer that scores otherwise; null where it is no number. */
  readonly answer: number | null;
}

/** Room at both ends, in parts of what is drawn. */
const MARGIN = 0.25;

/** The spans of both sides of a difference in tolerance; null for other differences. */
export function spansOf(difference: Difference): SpanPair | null {
  if (difference.facet !== 'tolerance') return null;
  const [from, to] = [spanOf(difference.from), spanOf(difference.to)];
  if (!from || !to) return null;
  const given = Object.values(difference.example?.response ?? {}).flat()[0];
  const answer = typeof given === 'number' && Number.isFinite(given) ? given : null;
  const marks = [from.low, from.high, to.low, to.high, ...(answer === null ? [] : [answer])];
  if (!marks.every(Number.isFinite)) return null;
  const [low, high] = [Math.min(...marks), Math.max(...marks)];
  const room = (high - low || Math.abs(high) || 1) * MARGIN;
  return { from, to, least: low - room, most: high + room, answer };
}
