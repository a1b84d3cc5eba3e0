import type { Feedback } from './content.ts';
import type { Item } from './holding.ts';
import type { Shape } from './scoring.ts';

/** What a conditionvar can say (ASI Information Model 1.2, "conditionvar"), as plain values. */
export type Test12 =
  | { readonly test: 'other' }
  | { readonly test: 'unanswered'; readonly response: string }
  | { readonly test: 'and' | 'or'; readonly parts: readonly Test12[] }
  | { readonly test: 'not'; readonly part: Test12 }
  | {
      readonly test: 'equal';
      readonly response: string;
      readonly value: string;
      readonly caseSensitive?: boolean;
      /** Place in an order, from 1. */
      readonly index?: number;
    }
  | {
      readonly test: 'substring';
      readonly response: string;
      readonly value: string;
      readonly caseSensitive?: boolean;
    }
  | { readonly test: 'gt' | 'gte' | 'lt' | 'lte'; readonly response: string; readonly value: string }
  | { readonly test: 'inside'; readonly response: string; readonly shape: Shape; readonly coords: string };

/** One respcondition: when it holds, what it does to the score, which feedback it shows. */
export interface Condition12 {
  readonly when: Test12;
  /** Null: the score stays. */
  readonly score: number | null;
  readonly action: 'Set' | 'Add' | 'Subtract' | 'Multiply' | 'Divide';
  readonly goesOn: boolean;
  readonly feedback: readonly string[];
}

/** An item as QTI 1.2 says it. */
export interface Item12 {
  readonly item: Item;
  readonly conditions: readonly Condition12[];
  readonly minimum: number | null;
  readonly maximum: number;
  readonly feedback: readonly Feedback[];
}
