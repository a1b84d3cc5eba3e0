import type { Criterion, RubricLevel, State } from '@alforja/core';

/** A criterion on both sides, with its levels as they answer to each other. */
export interface CriterionPair {
  readonly state: State;
  readonly left: Criterion | null;
  readonly right: Criterion | null;
  readonly levels: readonly { readonly left: RubricLevel | null; readonly right: RubricLevel | null }[];
}
