import type { Operator } from '../../model/scoring.ts';
import type { Value } from '../value.ts';
import { ARITHMETIC } from './arithmetic.ts';
import { COMPARISON } from './comparison.ts';
import { CONTAINERS } from './containers.ts';
import { LOGIC } from './logic.ts';

/** One operator: its evaluated arguments and its attributes to a value. */
export type OperatorFunction = (args: readonly Value[], attrs: Readonly<Record<string, string>>) => Value;
export type OperatorTable = Partial<Record<Operator, OperatorFunction>>;

/** Every operator the evaluator runs. One that is missing here makes a program "untrusted", never silently zero. */
export const OPERATOR_TABLE: OperatorTable = { ...LOGIC, ...COMPARISON, ...CONTAINERS, ...ARITHMETIC };
