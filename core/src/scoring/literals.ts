import type { Item } from '../model/holding.ts';
import type { Expr, Rule, Scalar } from '../model/scoring.ts';
import { spend } from './budget.ts';
import { clean, toleranceRange } from './operators/comparison.ts';

/** What a program compares a response with: found by reading it, so that running it can be aimed. */
export interface Literals {
  readonly values: Scalar[];
  /** Ends of intervals, for numbers. */
  readonly edges: number[];
  readonly patterns: string[];
  readonly substrings: string[];
  /** How numbers are accepted, as the source writes it. */
  readonly modes: Set<'absolute' | 'relative' | 'range' | 'rounded' | 'exact'>;
}

const none = (): Literals => ({ values: [], edges: [], patterns: [], substrings: [], modes: new Set() });

/** Every expression of a program, outermost first. */
export function eachExpr(rules: readonly Rule[], visit: (expr: Expr) => void): void {
  const inside = (expr: Expr): void => {
    visit(expr);
    if (expr.op === 'call') expr.args.forEach(inside);
  };
  for (const rule of rules) {
    if (rule.do === 'if') {
      for (const branch of rule.branches) {
        inside(branch.when);
        eachExpr(branch.then, visit);
      }
      eachExpr(rule.otherwise, visit);
    } else if (rule.do !== 'exit') inside(rule.value);
  }
}

/**
 * The literals of each response of an item: declared correct values, map keys, and what the rules compare
 * with.
 */
export function literalsOf(item: Pick<Item, 'responses' | 'scoring'>): Map<string, Literals> {
  const found = new Map(item.responses.map((r) => [r.id, none()]));
  for (const response of item.responses) {
    const at = found.get(response.id)!;
    spend((response.correct.length + (response.mapping?.entries.length ?? 0)) >> 3);
    for (const value of response.correct) at.values.push(value);
    for (const { key } of response.mapping?.entries ?? []) at.values.push(key);
  }
  eachExpr(item.scoring.rules, (expr) => {
    if (expr.op !== 'call') return;
    const answer = expr.args.find((a) => a.op === 'variable' && found.has(a.id));
    if (answer?.op !== 'variable') return;
    const at = found.get(answer.id)!;
    if (expr.name === 'patternMatch') at.patterns.push(expr.attrs?.['pattern'] ?? '');
    for (const arg of expr.args) {
      const values =
        arg.op === 'baseValue'
          ? [arg.value]
          : arg.op === 'correct'
            ? (item.responses.find((r) => r.id === arg.id)?.correct ?? [])
            : [];
      spend(1 + (values.length >> 3));
      for (const value of values) addValue(at, expr, value, expr.args[0] === answer);
    }
  });
  return found;
}

function addValue(
  at: Literals,
  expr: Extract<Expr, { op: 'call' }>,
  value: Scalar,
  answerFirst: boolean,
): void {
  const attrs = expr.attrs ?? {};
  if (expr.name === 'substring' || (expr.name === 'stringMatch' && attrs['substring'] === 'true')) {
    at.substrings.push(String(value));
  } else if (typeof value === 'number' && ['lt', 'gt', 'lte', 'gte'].includes(expr.name)) {
    at.edges.push(value);
    at.modes.add('range');
    return;
  } else if (typeof value === 'number' && expr.name === 'equal') {
    const mode = attrs['toleranceMode'];
    at.modes.add(mode === 'absolute' || mode === 'relative' ? mode : 'exact');
    at.edges.push(...(answerFirst ? mirrored(value, attrs) : straight(value, attrs)));
  } else if (typeof value === 'number' && expr.name === 'equalRounded') {
    at.modes.add('rounded');
    at.edges.push(...roundedEnds(value, attrs));
  }
  at.values.push(value);
}

/** Where rounding starts and stops to give the same: half a unit of the last figure either way. */
function roundedEnds(value: number, attrs: Readonly<Record<string, string>>): number[] {
  const figures = Number(attrs['figures']);
  if (!Number.isFinite(figures)) return [];
  const places =
    attrs['roundingMode'] === 'decimalPlaces' || value === 0
      ? figures
      : figures - 1 - Math.floor(Math.log10(Math.abs(value)));
  const half = 10 ** -places / 2;
  const rounded = Number(value.toFixed(Math.max(0, Math.min(20, places))));
  return [clean(rounded - half), clean(rounded + half)];
}

function straight(value: number, attrs: Readonly<Record<string, string>>): number[] {
  const range = toleranceRange(value, attrs);
  return range ? [range.low, range.high] : [];
}

/** With the answer as first operand it is the reference, so the tolerance lies around the answer. */
function mirrored(value: number, attrs: Readonly<Record<string, string>>): number[] {
  const [t0 = 0, t1 = t0] = (attrs['tolerance'] ?? '').trim().split(/\s+/u).map(Number);
  if (attrs['toleranceMode'] === 'absolute') return [clean(value - t1), clean(value + t0)];
  if (attrs['toleranceMode'] !== 'relative') return [];
  return [clean(value / (1 + t1 / 100)), clean(value / (1 - t0 / 100))].filter(Number.isFinite);
}
