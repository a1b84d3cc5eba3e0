import type { MatchedBy } from '../match/match.ts';
import type { Answers } from '../scoring/evaluate.ts';
import type { Facet, Quoted, SaidOf } from './said.ts';

export type { Facet };

/**
 * An answer that scores, or is shown, something else: in the source's identifiers and in words, with the points
 * on both sides.
 */
export interface Example {
  readonly response: Answers;
  /** What the answer says; nothing in records made before it was kept. */
  readonly answer?: readonly string[];
  readonly from: number;
  readonly to: number;
}

/** One thing that differs, both sides as data of its facet. */
export type Difference = {
  readonly [F in Facet]: {
    readonly facet: F;
    readonly from: SaidOf[F] | Quoted;
    readonly to: SaidOf[F] | Quoted;
    /** An answer that scores differently by it. */
    readonly example: Example | null;
  };
}[Facet];

export const STATES = ['intact', 'altered', 'missing', 'extra'] as const;
export type State = (typeof STATES)[number];

export interface PairReport {
  readonly source: string;
  readonly arrived: string;
  readonly state: 'intact' | 'altered';
  readonly by: MatchedBy;
  readonly differences: readonly Difference[];
}

export interface ContainerReport {
  readonly kind: 'quiz' | 'bank' | 'rubric';
  readonly source: string | null;
  readonly arrived: string | null;
  readonly state: State;
  readonly differences: readonly Difference[];
}

/** Replicas of one exercise, looked at together. */
export interface FamilyReport {
  readonly id: string;
  readonly title: string;
  /** Source items of those that arrived. */
  readonly items: readonly string[];
  /** How many did not. */
  readonly missing: number;
  /** `reseeded`: the same exercise with other numbers, one fact however many items it has. */
  readonly state: 'intact' | 'reseeded' | 'altered';
  /** Arrived items whose key did not follow their numbers. */
  readonly stale: readonly {
    readonly item: string;
    readonly key: string;
    readonly expected: number | null;
  }[];
}

export interface Comparison {
  readonly verdict: 'intact' | 'altered' | 'incomplete';
  readonly counts: {
    readonly intact: number;
    readonly altered: number;
    readonly missing: number;
    readonly extra: number;
  };
  readonly pairs: readonly PairReport[];
  readonly missing: readonly { readonly id: string; readonly title: string }[];
  readonly extra: readonly { readonly id: string; readonly title: string }[];
  readonly containers: readonly ContainerReport[];
  /** Files of the source whose content is nowhere in what arrived. */
  readonly missingFiles: readonly string[];
  /** Files of the source that are there under their name with other content, and belong to no item. */
  readonly alteredFiles: readonly string[];
  /** Families of the source; none in records made before they were looked for. */
  readonly families: readonly FamilyReport[];
}
