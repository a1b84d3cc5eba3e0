import type { Operator } from '../../model/scoring.ts';
import { ARITHMETIC } from './arithmetic.ts';
import { CHANCE } from './chance.ts';
import { COMPARISON } from './comparison.ts';
import { CONTAINERS } from './containers.ts';
import { LOGIC } from './logic.ts';
import { TESTS } from './tests.ts';
import type { OperatorFunction } from './operator.ts';

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
