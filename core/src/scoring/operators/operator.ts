import type { Operator } from '../../model/scoring.ts';
import { asNumber, type Value } from '../value.ts';
import type { Size } from '../geometry.ts';

/** What an operator may ask of the run it is part of. */
export interface Environment {
  variable(id: string): Value;
  /** From 0 to 1, seeded. */
  random(): number;
  /** The picture a response points at. */
  readonly size: Size;
  /** What a test knows of its items; null outside outcome processing. */
  readonly test: TestEnvironment | null;
}

export interface TestEnvironment {
  readonly testVariables: (attrs: Attributes) => Value;
  readonly count: (what: Operator, attrs: Attributes) => Value;
}

export type Attributes = Readonly<Record<string, string>>;

/** One operator: its evaluated arguments and its attributes to a value. */
export type OperatorFunction = (args: readonly Value[], attrs: Attributes, run: Environment) => Value;
export type OperatorTable = Partial<Record<Operator, OperatorFunction>>;

/** An attribute that is a number, or names a variable that holds one. */
export function numberOf(given: string | undefined, run: Environment): number | null {
  if (given === undefined || given.trim() === '') return null;
  const n = Number(given);
  return Number.isFinite(n) ? n : asNumber(run.variable(given.replace(/^\{|\}$/gu, '').trim()));
}
