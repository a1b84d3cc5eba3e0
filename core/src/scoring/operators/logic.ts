import { asBoolean, truth, type Value } from '../value.ts';
import type { OperatorTable } from './operator.ts';

/** Three-valued logic (QTI 2.1 Information Model, "and", "or", "not", "anyN"). */
export const LOGIC: OperatorTable = {
  and: (args) => truth(all(args)),
  or: (args) => {
    const negated = all(args.map((a) => negate(a)));
    return truth(negated === null ? null : !negated);
  },
  not: ([a]) => negate(a ?? null),
  isNull: ([a]) => truth((a ?? null) === null || a!.values.every((v) => v === '')),
  anyN: (args, attrs) => {
    const low = Number(attrs['min'] ?? 0);
    const high = Number(attrs['max'] ?? args.length);
    const yes = args.filter((a) => asBoolean(a) === true).length;
    const unknown = args.filter((a) => asBoolean(a) === null).length;
    if (yes > high || yes + unknown < low) return truth(false);
    return truth(yes >= low && yes + unknown <= high ? true : null);
  },
};

const negate = (a: Value): Value => {
  const b = asBoolean(a);
  return truth(b === null ? null : !b);
};

function all(args: readonly Value[]): boolean | null {
  let unknown = false;
  for (const arg of args) {
    const b = asBoolean(arg);
    if (b === false) return false;
    if (b === null) unknown = true;
  }
  return unknown ? null : true;
}
