import type { Comparison, RubricSides, State } from '@alforja/core';
import type { DifferencesShown } from './differences.ts';
import type { SeamView } from './seam.ts';

/** An arrival as its page shows it: what differs in words, and both sides row by row. */
export interface ArrivalShown {
  readonly verdict: Comparison['verdict'];
  readonly onPurpose: number;
  /** Quizzes that are there on both sides. */
  readonly quizzes: readonly { readonly id: string; readonly name: string }[];
  readonly differences: DifferencesShown;
  readonly seam: SeamView;
  readonly rubrics: readonly RubricPair[];
}

/** A rubric of the plan beside what became of it. */
export interface RubricPair {
  readonly state: State;
  readonly planned: { readonly title: string; readonly points: number | null } | null;
  readonly arrived: { readonly title: string; readonly points: number | null } | null;
  readonly sides: RubricSides | null;
}
