import type { Operator } from '../../model/scoring.ts';
import type { Value } from '../value.ts';

/** One operator: its evaluated arguments and its attributes to a value. */
export type OperatorFunction = (args: readonly Value[], attrs: Readonly<Record<string, string>>) => Value;
export type OperatorTable = Partial<Record<Operator, OperatorFunction>>;
