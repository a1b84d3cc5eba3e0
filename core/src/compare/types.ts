import type { MatchedBy } from '../match/match.ts';
import type { Answers } from '../scoring/evaluate.ts';

/** What can differ of an item. */
type ItemFacet =
  | 'wording'
  | 'choices'
  | 'choice-order'
  | 'key'
  | 'points'
  | 'scoring'
  | 'tolerance'
  | 'case-sensitivity'
  | 'feedback'
  | 'files'
  | 'mathematics'
  | 'category'
  | 'title'
  | 'shuffle'
  | 'kind';
/** What can differ of a quiz, bank or rubric. */
type ContainerFacet =
  | 'title'
  | 'instructions'
  | 'attempts'
  | 'time-limit'
  | 'dates'
  | 'draw'
  | 'sections'
  | 'membership'
  | 'pass-mark'
  | 'shuffle'
  | 'points'
  | 'criteria'
  | 'levels';
export type Facet = ItemFacet | ContainerFacet;

/** An answer that scores differently: the source's identifiers, and the points on both sides. */
export interface Example {
  readonly response: Answers;
  readonly from: number;
  readonly to: number;
}

/** One thing that differs, both sides in words. */
export interface Difference {
  readonly facet: Facet;
  readonly from: string;
  readonly to: string;
  readonly example: Example | null;
}

export type State = 'intact' | 'altered' | 'missing' | 'extra';

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
}
