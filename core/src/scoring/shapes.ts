import type { Scalar } from '../model/scoring.ts';

/** The kinds of rule that people tell apart, as the command line names them. */
export type ScoringKind =
  | 'all-or-nothing'
  | 'per-choice'
  | 'accepted-answers'
  | 'numeric'
  | 'pattern'
  | 'manual'
  | 'sum-of-parts'
  | 'none'
  | 'program';

/** How the source wrote the interval that a number is accepted in; the bounds are always themselves. */
export interface Tolerance {
  readonly mode: 'absolute' | 'relative' | 'range' | 'rounded';
  readonly low: number;
  readonly high: number;
  readonly includesLow: boolean;
  readonly includesHigh: boolean;
}

/** What single values are worth: choices, pairs, or areas that points fall in. */
export type Unit = 'choice' | 'pair' | 'area';

/**
 * The human shape of a program, in points. Every shape but "program" has been run against the program on all
 * probes.
 */
export type ScoringShape =
  | { readonly kind: 'manual' | 'none' | 'program' }
  | {
      readonly kind: 'all-or-nothing';
      readonly points: number;
      /** Whether it is the right order that counts. */
      readonly ordered: boolean;
    }
  | {
      readonly kind: 'per-choice';
      readonly unit: Unit;
      /** By choice identifier, pair, or "shape coords" of an area. */
      readonly values: Readonly<Record<string, number>>;
      /** What everything else gives. */
      readonly otherwise: number;
      readonly lower: number | null;
      readonly upper: number | null;
    }
  | {
      readonly kind: 'accepted-answers';
      readonly answers: readonly { text: string; points: number; caseSensitive: boolean }[];
    }
  | {
      readonly kind: 'numeric';
      readonly points: number;
      readonly value: number;
      /** Whether the source names the value, or it is the middle of a range. */
      readonly stated: boolean;
      readonly tolerance: Tolerance | null;
    }
  | {
      readonly kind: 'pattern';
      readonly points: number;
      readonly patterns: readonly string[];
      readonly substrings: readonly string[];
    }
  | {
      readonly kind: 'sum-of-parts';
      readonly parts: readonly { responseId: string; shape: ScoringShape }[];
    };

export type NumericShape = Extract<ScoringShape, { kind: 'numeric' }>;

export type Key = Readonly<Record<string, readonly Scalar[]>>;
