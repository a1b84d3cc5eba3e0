import type { BaseType, Scalar } from '../../model/scoring.ts';
import { held, integer, sameScalar, scalarKey, truth, type Value } from '../value.ts';
import { spend } from '../budget.ts';
import { numberOf, type OperatorTable } from './operator.ts';

const gather =
  (cardinality: 'multiple' | 'ordered') =>
  (args: readonly Value[]): Value => {
    let baseType: BaseType | null | undefined;
    const all: Scalar[] = [];
    for (const arg of args) {
      if (arg === null) continue;
      if (baseType === undefined) ({ baseType } = arg);
      for (const value of arg.values) all.push(value);
    }
    return held(cardinality, baseType ?? null, all);
  };

/** More repetitions, or more values from them, are an author's slip or an attack. */
const MAX_REPEAT = 1000;
const MAX_REPEATED = 100_000;

/** Containers (QTI 2.1 Information Model, "multiple" to "contains"). */
export const CONTAINERS: OperatorTable = {
  multiple: gather('multiple'),
  ordered: gather('ordered'),
  containerSize: ([a]) => integer(a ? a.values.length : 0),
  index: ([a], attrs, run) => {
    const n = numberOf(attrs['n'], run);
    const found = n === null ? undefined : a?.values[n - 1];
    return !a || found === undefined ? null : held('single', a.baseType, [found]);
  },
  fieldValue: ([a], attrs) => {
    const at = a?.fields?.indexOf(attrs['fieldIdentifier'] ?? '') ?? -1;
    if (!a || at < 0) return null;
    const found = a.values[at]!;
    return held(
      'single',
      typeof found === 'number' ? 'float' : typeof found === 'boolean' ? 'boolean' : 'string',
      [found],
    );
  },
  member: (args) => {
    const a = args[0];
    const b = args[1];
    if (!a || !b) return null;
    const [wanted] = a.values;
    for (const value of b.values) if (sameScalar(value, wanted!, b.baseType)) return truth(true);
    return truth(false);
  },
  delete: ([a, b]) => {
    if (!a || !b) return null;
    const gone = scalarKey(a.values[0]!, b.baseType);
    return held(
      b.cardinality,
      b.baseType,
      b.values.filter((v) => scalarKey(v, b.baseType) !== gone),
    );
  },
  contains: ([a, b]) => {
    if (!a || !b) return null;
    const whole = a.values.map((v) => scalarKey(v, a.baseType));
    const part = b.values.map((v) => scalarKey(v, a.baseType));
    if (a.cardinality === 'ordered') {
      spend((whole.length * part.length) >> 6);
      return truth(whole.some((_, at) => part.every((p, k) => whole[at + k] === p)));
    }
    const left = new Map<string, number>();
    for (const w of whole) left.set(w, (left.get(w) ?? 0) + 1);
    for (const p of part) {
      const there = left.get(p) ?? 0;
      if (there === 0) return truth(false);
      left.set(p, there - 1);
    }
    return truth(true);
  },
  repeat: (args, attrs, run) => {
    const times = numberOf(attrs['numberRepeats'], run);
    const given = args.filter((a) => a !== null);
    if (times === null || times < 1 || given.length === 0) return null;
    const once = given.flatMap((a) => a.values);
    const most = Math.min(MAX_REPEAT, times, Math.max(1, Math.floor(MAX_REPEATED / once.length)));
    spend((once.length * most) >> 2);
    const out: Scalar[] = [];
    for (let time = 0; time < most; time++) for (const value of once) out.push(value);
    return held('ordered', given[0]!.baseType, out);
  },
};
