import { asNumber, float, integer, type Value } from '../value.ts';
import { roundHalfUp } from './comparison.ts';
import type { OperatorTable } from './operator.ts';

/** All numbers of the arguments, containers flattened; null when any is NULL. */
function numbers(args: readonly Value[]): number[] | null {
  const out: number[] = [];
  for (const arg of args) {
    if (arg === null) return null;
    for (const v of arg.values) {
      if (typeof v !== 'number') return null;
      out.push(v);
    }
  }
  return out;
}

const fold =
  (combine: (list: readonly number[]) => number | null) =>
  (args: readonly Value[]): Value => {
    const list = numbers(args);
    return list === null || list.length === 0 ? null : float(combine(list));
  };

const two =
  (combine: (a: number, b: number) => number | null) =>
  (args: readonly Value[]): Value => {
    const a = asNumber(args[0] ?? null);
    const b = asNumber(args[1] ?? null);
    return a === null || b === null ? null : float(combine(a, b));
  };

const whole =
  (combine: (a: number) => number) =>
  (args: readonly Value[]): Value => {
    const a = asNumber(args[0] ?? null);
    return a === null ? null : integer(combine(a));
  };

/** Arithmetic (QTI 2.1 Information Model, "sum" to "roundTo"). NULL in gives NULL out; so does division by zero. */
export const ARITHMETIC: OperatorTable = {
  sum: fold((list) => list.reduce((a, b) => a + b, 0)),
  product: fold((list) => list.reduce((a, b) => a * b, 1)),
  max: fold((list) => Math.max(...list)),
  min: fold((list) => Math.min(...list)),
  subtract: two((a, b) => a - b),
  divide: two((a, b) => (b === 0 ? null : a / b)),
  power: two((a, b) => a ** b),
  integerDivide: two((a, b) => (b === 0 ? null : Math.floor(a / b))),
  integerModulus: two((a, b) => (b === 0 ? null : a - b * Math.floor(a / b))),
  truncate: whole(Math.trunc),
  round: whole((a) => Math.floor(a + 0.5)),
  roundTo: ([a], attrs) => {
    const n = asNumber(a ?? null);
    const figures = Number(attrs['figures'] ?? 0);
    if (n === null) return null;
    return float(
      attrs['roundingMode'] === 'significantFigures'
        ? Number(n.toPrecision(Math.max(1, figures)))
        : roundHalfUp(n, figures),
    );
  },
};
