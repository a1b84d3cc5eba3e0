import type { Operator } from '../../model/scoring.ts';
import { ARITHMETIC } from './arithmetic.ts';
import { CHANCE } from './chance.ts';
import { COMPARISON, equalBy } from './comparison.ts';
import { CONTAINERS } from './containers.ts';
import { LOGIC } from './logic.ts';
import { TESTS } from './tests.ts';
import type { Attributes, Environment, OperatorFunction } from './operator.ts';
import type { Value } from '../value.ts';

/**
 * Every operator the evaluator runs. One that is missing here makes a program "untrusted", never silently
 * zero.
 */
export const OPERATOR_TABLE: Readonly<Partial<Record<Operator, OperatorFunction>>> = {
  ...LOGIC,
  ...COMPARISON,
  ...CONTAINERS,
  ...ARITHMETIC,
  ...CHANCE,
  ...TESTS,
};

/** An operator whose attributes have been read. */
export type Prepared = (args: readonly Value[], run: Environment) => Value;

/** The operator of that name with these attributes; null where there is none. */
export function prepared(name: Operator, attrs: Attributes): Prepared | null {
  if (name === 'equal') return equalBy(attrs);
  const operator = OPERATOR_TABLE[name];
  return operator ? (args, run) => operator(args, attrs, run) : null;
}
