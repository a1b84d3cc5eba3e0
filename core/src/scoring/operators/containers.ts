import { held, integer, scalarKey, truth, type Value } from '../value.ts';
import { numberOf, type OperatorTable } from './operator.ts';

const gather =
  (cardinality: 'multiple' | 'ordered') =>
  (args: readonly Value[]): Value => {
    const given = args.filter((a) => a !== null);
    return held(
      cardinality,
      given[0]?.baseType ?? null,
      given.flatMap((a) => a.values),
    );
  };

/** More repetitions than this are an author's slip or an attack. */
const MAX_REPEAT = 1000;

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
  member: ([a, b]) => {
    if (!a || !b) return null;
    const wanted = scalarKey(a.values[0]!, b.baseType);
    return truth(b.values.some((v) => scalarKey(v, b.baseType) === wanted));
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
      return truth(whole.some((_, at) => part.every((p, k) => whole[at + k] === p)));
    }
    for (const p of part) {
      const at = whole.indexOf(p);
      if (at < 0) return truth(false);
      whole.splice(at, 1);
    }
    return truth(true);
  },
  repeat: (args, attrs, run) => {
    const times = numberOf(attrs['numberRepeats'], run);
    const given = args.filter((a) => a !== null);
    if (times === null || times < 1 || given.length === 0) return null;
    const once = given.flatMap((a) => a.values);
    return held(
      'ordered',
      given[0]!.baseType,
      Array.from({ length: Math.min(MAX_REPEAT, times) }, () => once).flat(),
    );
  },
};
