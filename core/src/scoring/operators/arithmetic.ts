import { asNumber, float, integer, type Value } from '../value.ts';
import { roundHalfUp } from './comparison.ts';
import { numberOf, type OperatorTable } from './operator.ts';

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

/** Integers stay integers, as the base type of the result follows the operands. */
function like(args: readonly Value[], n: number | null): Value {
  if (n === null || !Number.isInteger(n)) return float(n);
  for (const arg of args) if (arg?.baseType !== 'integer') return float(n);
  return integer(n);
}

/** @param pair the same of two numbers, by far the most of all: what adding a part to a score is */
const fold =
  (combine: (list: readonly number[]) => number | null, pair?: (a: number, b: number) => number) =>
  (args: readonly Value[]): Value => {
    if (pair && args.length === 2) {
      const a = asNumber(args[0]!);
      const b = asNumber(args[1]!);
      if (a !== null && b !== null) return like(args, pair(a, b));
    }
    const list = numbers(args);
    return list === null || list.length === 0 ? null : like(args, combine(list));
  };

const two =
  (combine: (a: number, b: number) => number | null, make: typeof float = float) =>
  (args: readonly Value[]): Value => {
    const a = asNumber(args[0] ?? null);
    const b = asNumber(args[1] ?? null);
    return a === null || b === null ? null : make(combine(a, b));
  };

const whole =
  (combine: (a: number) => number) =>
  (args: readonly Value[]): Value => {
    const a = asNumber(args[0] ?? null);
    return a === null ? null : integer(combine(a));
  };

const gcd = (a: number, b: number): number => (b === 0 ? Math.abs(a) : gcd(b, a % b));
const lcm = (a: number, b: number): number => (a === 0 || b === 0 ? 0 : Math.abs(a * b) / gcd(a, b));

/** mathOperator's functions of one or two numbers (QTI 2.1, "mathOperator"). */
const FUNCTIONS: Readonly<Record<string, (a: number, b: number) => number>> = {
  sin: Math.sin,
  cos: Math.cos,
  tan: Math.tan,
  sec: (a) => 1 / Math.cos(a),
  csc: (a) => 1 / Math.sin(a),
  cot: (a) => 1 / Math.tan(a),
  asin: Math.asin,
  acos: Math.acos,
  atan: Math.atan,
  atan2: (a, b) => Math.atan2(a, b),
  asec: (a) => Math.acos(1 / a),
  acsc: (a) => Math.asin(1 / a),
  acot: (a) => Math.PI / 2 - Math.atan(a),
  sinh: Math.sinh,
  cosh: Math.cosh,
  tanh: Math.tanh,
  sech: (a) => 1 / Math.cosh(a),
  csch: (a) => 1 / Math.sinh(a),
  coth: (a) => 1 / Math.tanh(a),
  log: Math.log10,
  ln: Math.log,
  exp: Math.exp,
  abs: Math.abs,
  signum: Math.sign,
  floor: Math.floor,
  ceil: Math.ceil,
  toDegrees: (a) => (a * 180) / Math.PI,
  toRadians: (a) => (a * Math.PI) / 180,
};
const INTEGER_FUNCTIONS = new Set(['signum', 'floor', 'ceil']);

const mean = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;
const squares = (list: readonly number[]): number => {
  const middle = mean(list);
  return list.reduce((sum, x) => sum + (x - middle) ** 2, 0);
};
/** statsOperator (QTI 2.1): sample statistics divide by n - 1, population ones by n. */
const STATISTICS: Readonly<Record<string, (list: readonly number[]) => number | null>> = {
  mean,
  sampleVariance: (l) => (l.length < 2 ? null : squares(l) / (l.length - 1)),
  sampleSD: (l) => (l.length < 2 ? null : Math.sqrt(squares(l) / (l.length - 1))),
  popVariance: (l) => squares(l) / l.length,
  popSD: (l) => Math.sqrt(squares(l) / l.length),
};

/**
 * Arithmetic (QTI 2.1 Information Model, "sum" to "roundTo"). NULL in gives NULL out; so does division by
 * zero.
 */
export const ARITHMETIC: OperatorTable = {
  sum: fold(
    (list) => list.reduce((a, b) => a + b, 0),
    (a, b) => 0 + a + b,
  ),
  product: fold((list) => list.reduce((a, b) => a * b, 1)),
  max: fold((list) => list.reduce((a, b) => Math.max(a, b)), Math.max),
  min: fold((list) => list.reduce((a, b) => Math.min(a, b)), Math.min),
  gcd: fold((list) => (list.every(Number.isInteger) ? list.reduce(gcd) : null)),
  lcm: fold((list) => (list.every(Number.isInteger) ? list.reduce(lcm) : null)),
  subtract: (args) => {
    const [a, b] = [asNumber(args[0] ?? null), asNumber(args[1] ?? null)];
    return a === null || b === null ? null : like(args, a - b);
  },
  divide: two((a, b) => (b === 0 ? null : a / b)),
  power: two((a, b) => a ** b),
  integerDivide: two((a, b) => (b === 0 ? null : Math.floor(a / b)), integer),
  integerModulus: two((a, b) => (b === 0 ? null : a - b * Math.floor(a / b)), integer),
  truncate: whole(Math.trunc),
  round: whole((a) => Math.floor(a + 0.5)),
  integerToFloat: ([a]) => float(asNumber(a ?? null)),
  roundTo: ([a], attrs, run) => {
    const n = asNumber(a ?? null);
    const figures = numberOf(attrs['figures'], run) ?? 0;
    if (n === null) return null;
    return float(
      attrs['roundingMode'] === 'significantFigures'
        ? Number(n.toPrecision(Math.max(1, Math.min(100, figures))))
        : roundHalfUp(n, figures),
    );
  },
  mathOperator: (args, attrs) => {
    const name = attrs['name'] ?? '';
    const [a, b] = [asNumber(args[0] ?? null), asNumber(args[1] ?? null)];
    const f = Object.hasOwn(FUNCTIONS, name) ? FUNCTIONS[name]! : null;
    if (!f || a === null || (f.length > 1 && name === 'atan2' && b === null)) return null;
    const result = f(a, b ?? 0);
    return INTEGER_FUNCTIONS.has(name) ? integer(result) : float(result);
  },
  statsOperator: (args, attrs) => {
    const list = numbers(args);
    const name = attrs['name'] ?? '';
    const f = Object.hasOwn(STATISTICS, name) ? STATISTICS[name]! : null;
    return !f || list === null || list.length === 0 ? null : float(f(list));
  },
  mathConstant: (_, attrs) =>
    attrs['name'] === 'pi' ? float(Math.PI) : attrs['name'] === 'e' ? float(Math.E) : null,
};
