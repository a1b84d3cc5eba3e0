import type { Item } from '../model/holding.ts';
import type { Expr, Rule } from '../model/scoring.ts';
import { spend } from './budget.ts';

/** From where to where a value can lie; null where nobody can say. */
interface Span {
  readonly low: number;
  readonly high: number;
}
type Known = ReadonlyMap<string, Span | null>;
type Programmed = Pick<Item, 'scoring' | 'scoreOutcome' | 'outcomes' | 'responses'>;

const point = (n: number): Span => ({ low: n, high: n });

/**
 * A score no answer can pass, found by following the program without any answer: each condition may hold or
 * not, each number lies between its ends (interval arithmetic, Moore 1966). Null where an expression says
 * nothing about its value.
 */
export function scoreBound(item: Programmed): number | null {
  const start = new Map<string, Span | null>(
    item.outcomes.map((o) => {
      const [given] = o.defaultValue;
      return [o.id, typeof given === 'number' ? point(given) : null];
    }),
  );
  const end = follow(item.scoring.rules, start, item);
  return end?.get(item.scoreOutcome)?.high ?? null;
}

/** What variables can hold after the rules; null where processing may stop inside them. */
function follow(rules: readonly Rule[], before: Known, item: Programmed): Known | null {
  let now = before;
  for (const rule of rules) {
    if (rule.do === 'exit') return null;
    if (rule.do === 'if') {
      const ends = [...rule.branches.map((b) => b.then), rule.otherwise].map((r) => follow(r, now, item));
      if (ends.some((e) => e === null)) return null;
      now = join(ends as Known[]);
    } else if (rule.do === 'set' || rule.do === 'lookup') spend(now.size >> 3);
    if (rule.do === 'set') now = new Map(now).set(rule.id, spanOf(rule.value, now, item));
    else if (rule.do === 'lookup') now = new Map(now).set(rule.id, null);
  }
  return now;
}

/** Whichever of several ways was taken. */
function join(ends: readonly Known[]): Known {
  const [first, ...rest] = ends;
  const out = new Map(first);
  spend(ends.reduce((n, end) => n + end.size, 0) >> 3);
  for (const end of rest)
    for (const [id, span] of end) {
      const had = out.has(id) ? out.get(id)! : null;
      out.set(
        id,
        had && span ? { low: Math.min(had.low, span.low), high: Math.max(had.high, span.high) } : null,
      );
    }
  return out;
}

function spanOf(expr: Expr, now: Known, item: Programmed): Span | null {
  switch (expr.op) {
    case 'baseValue':
      return typeof expr.value === 'number' ? point(expr.value) : null;
    case 'variable':
      return now.get(expr.id) ?? null;
    case 'mapResponse':
    case 'mapResponsePoint':
      return mapped(item, expr.id, expr.op === 'mapResponsePoint');
    case 'call': {
      const spans = expr.args.map((a) => spanOf(a, now, item));
      return spans.some((s) => s === null) ? null : combined(expr.name, spans as Span[]);
    }
    default:
      return null;
  }
}

/** All that adds, and all that takes away, within the mapping's bounds. */
function mapped(item: Programmed, id: string, area: boolean): Span | null {
  const response = item.responses.find((r) => r.id === id);
  const mapping = area ? response?.areaMapping : response?.mapping;
  // What is not mapped may be given any number of times.
  if (!response || !mapping || mapping.defaultValue !== 0) return null;
  const values = mapping.entries.map((e) => e.value);
  const single = response.cardinality === 'single';
  const reach = (of: readonly number[], best: (...n: number[]) => number): number =>
    single ? best(0, ...of) : of.filter((v) => best(0, v) === v).reduce((sum, v) => sum + v, 0);
  const low = Math.max(reach(values, Math.min), mapping.lowerBound ?? -Infinity);
  const high = Math.min(reach(values, Math.max), mapping.upperBound ?? Infinity);
  return { low: Math.min(low, high), high: Math.max(low, high) };
}

function combined(name: string, spans: readonly Span[]): Span | null {
  const [a, b] = spans;
  switch (name) {
    case 'sum':
      return spans.reduce((x, y) => ({ low: x.low + y.low, high: x.high + y.high }), point(0));
    case 'subtract':
      return a && b ? { low: a.low - b.high, high: a.high - b.low } : null;
    case 'product':
      return spans.reduce(times, point(1));
    case 'divide':
      return a && b && b.low === b.high && b.low !== 0 ? times(a, point(1 / b.low)) : null;
    case 'max':
      return { low: Math.max(...spans.map((s) => s.low)), high: Math.max(...spans.map((s) => s.high)) };
    case 'min':
      return { low: Math.min(...spans.map((s) => s.low)), high: Math.min(...spans.map((s) => s.high)) };
    default:
      return null;
  }
}

function times(a: Span, b: Span): Span {
  const ends = [a.low * b.low, a.low * b.high, a.high * b.low, a.high * b.high];
  return { low: Math.min(...ends), high: Math.max(...ends) };
}
