import type { Condition12, Test12 } from '../model/conditions12.ts';

/** What QTI 1.2 can say of an item's scoring: its conditions, and what of the rule is lost. */
export interface Said {
  readonly conditions: readonly Condition12[];
  /** Bounds that are applied once at the end, in the units of the conditions; null: none. */
  readonly lower: number | null;
  readonly upper: number | null;
  /** Why it is not the same any more; null where it is. */
  readonly lost: string | null;
}

/** The test that a response is a value. */
export const equal = (
  response: string,
  value: string,
  extra: Partial<Extract<Test12, { test: 'equal' }>> = {},
): Test12 => ({ test: 'equal', response, value, ...extra });
/** All of several tests; one stands for itself. */
export const and = (parts: readonly Test12[]): Test12 =>
  parts.length === 1 ? parts[0]! : { test: 'and', parts };
