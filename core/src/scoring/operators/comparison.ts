import { asNumber, asText, sameValue, truth, type Value } from '../value.ts';
import { inArea, parsePoint } from '../geometry.ts';
import { compilePattern } from '../pattern.ts';
import { composed } from '../../model/composed.ts';
import type { Shape } from '../../model/scoring.ts';
import { numberOf, type Attributes, type Environment, type OperatorTable } from './operator.ts';

/** A pattern in braces names a template variable that holds it. */
export const NAMED_PATTERN = /^\{([^{}]+)\}$/u;

type Compare = (a: number, b: number) => boolean;
const ordered =
  (compare: Compare) =>
  (args: readonly Value[]): Value => {
    const a = asNumber(args[0] ?? null);
    const b = asNumber(args[1] ?? null);
    return truth(a === null || b === null ? null : compare(a, b));
  };

/** Comparisons (QTI 2.1 Information Model, "match" to "gte"). A NULL operand gives NULL. */
export const COMPARISON: OperatorTable = {
  match: (args) => {
    const a = args[0];
    const b = args[1];
    return truth(!a || !b ? null : sameValue(a, b));
  },
  lt: ordered((a, b) => a < b),
  gt: ordered((a, b) => a > b),
  lte: ordered((a, b) => a <= b),
  gte: ordered((a, b) => a >= b),
  durationLT: ordered((a, b) => a < b),
  durationGTE: ordered((a, b) => a >= b),
  stringMatch: (args, attrs) => {
    const given = asText(args[0] ?? null);
    const wanted = asText(args[1] ?? null);
    if (given === null || wanted === null) return null;
    if (given === wanted) return truth(true);
    const [x, y] = [cased(given, attrs), cased(wanted, attrs)];
    return truth(attrs['substring'] === 'true' ? x.includes(y) : x === y);
  },
  substring: ([a, b], attrs) => {
    const wanted = asText(a ?? null);
    const given = asText(b ?? null);
    if (given === null || wanted === null) return null;
    return truth(cased(given, attrs).includes(cased(wanted, attrs)));
  },
  patternMatch: ([a], attrs, run) => {
    const given = asText(a ?? null);
    const written = attrs['pattern'] ?? '';
    const named = NAMED_PATTERN.exec(written);
    const pattern = compilePattern((named && asText(run.variable(named[1]!))) ?? written);
    return truth(given === null || !pattern.ok ? null : pattern.matches(given));
  },
  equal: (args, attrs, run) => equalBy(attrs)(args, run),
  inside: ([a], attrs, run) => {
    if (!a) return null;
    const points = a.values.map((v) => parsePoint(String(v)));
    const shape = (attrs['shape'] ?? 'default') as Shape;
    return truth(points.some((p) => p !== null && inArea(shape, attrs['coords'] ?? '', p, run.size)));
  },
  equalRounded: ([a, b], attrs, run) => {
    const x = asNumber(a ?? null);
    const y = asNumber(b ?? null);
    const figures = numberOf(attrs['figures'] ?? '0', run);
    if (x === null || y === null || figures === null) return null;
    const round = (n: number): number =>
      attrs['roundingMode'] === 'decimalPlaces'
        ? roundHalfUp(n, figures)
        : Number(n.toPrecision(Math.max(1, Math.min(100, figures))));
    return truth(round(x) === round(y));
  },
};

/** `equal` with its tolerance read, which may name template variables. */
export function equalBy(attrs: Attributes): (args: readonly Value[], run: Environment) => Value {
  const given = attrs['tolerance'];
  const named = given !== undefined && !given.split(/\s+/u).every((t) => Number.isFinite(Number(t)));
  const within = named ? null : around(attrs);
  return ([a, b], run) => {
    const x = asNumber(a ?? null);
    const y = asNumber(b ?? null);
    if (x === null || y === null) return null;
    return truth(isWithin(y, x, (within ?? around(settleTolerance(attrs, given!, run)))(x)));
  };
}

/** The interval around a reference; remembered for the last one, which a program asks for again and again. */
function around(attrs: Attributes): (reference: number) => Interval | null {
  let last: number | null = null;
  let range: Interval | null = null;
  return (reference) => {
    if (last !== reference) {
      last = reference;
      range = toleranceRange(reference, attrs);
    }
    return range;
  };
}

function settleTolerance(attrs: Attributes, given: string, run: Environment): Attributes {
  const parts = given
    .trim()
    .split(/\s+/u)
    .map((t) => numberOf(t, run) ?? 0);
  return { ...attrs, tolerance: parts.join(' ') };
}

const cased = (text: string, attrs: Attributes): string =>
  composed(attrs['caseSensitive'] !== 'false' ? text : text.toLowerCase());

/** Decimal places with halves going up, free of binary surprises such as 1.005. */
export function roundHalfUp(n: number, places: number): number {
  const shifted = Number(`${n}e${places}`);
  return Number.isFinite(shifted) ? Number(`${Math.round(shifted)}e${-places}`) : n;
}

/**
 * The first operand is the reference: the second must lie within the tolerance around it (QTI 2.1, "equal").
 */
function isWithin(tested: number, reference: number, range: Interval | null): boolean {
  if (range === null) return reference === tested;
  const aboveLow = range.includesLow ? tested >= range.low : tested > range.low;
  const belowHigh = range.includesHigh ? tested <= range.high : tested < range.high;
  return aboveLow && belowHigh;
}

interface Interval {
  readonly low: number;
  readonly high: number;
  readonly includesLow: boolean;
  readonly includesHigh: boolean;
}

/** The interval an `equal` accepts around a value; null for exact. */
export function toleranceRange(x: number, attrs: Attributes): Interval | null {
  const mode = attrs['toleranceMode'] ?? 'exact';
  if (mode !== 'absolute' && mode !== 'relative') return null;
  const [t0 = 0, t1 = t0] = (attrs['tolerance'] ?? '').trim().split(/\s+/u).map(Number);
  const low = mode === 'absolute' ? clean(x - t0) : clean(x * (1 - t0 / 100));
  const high = mode === 'absolute' ? clean(x + t1) : clean(x * (1 + t1 / 100));
  return {
    low: Math.min(low, high),
    high: Math.max(low, high),
    includesLow: attrs['includeLowerBound'] !== 'false',
    includesHigh: attrs['includeUpperBound'] !== 'false',
  };
}

/** 3.3 - 0.1 must be 3.2: bounds are rounded to 12 significant figures. */
export const clean = (n: number): number => Number(n.toPrecision(12));
