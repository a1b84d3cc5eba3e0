import type { Criterion, Rubric, RubricLevel } from '../model/rubric.ts';
import { compareRubrics, gradeEffect, pairCriteria, pairLevels, type GradeEffect } from './compareRubrics.ts';
import type { State } from './types.ts';

/** A criterion on both sides, with its levels as they answer to each other. */
export interface CriterionPair {
  readonly state: State;
  readonly left: Criterion | null;
  readonly right: Criterion | null;
  readonly levels: readonly { readonly left: RubricLevel | null; readonly right: RubricLevel | null }[];
}

export interface RubricSides {
  readonly rows: readonly CriterionPair[];
  /** What the differences do to a grade; null where the same ticks come to the same. */
  readonly effect: GradeEffect | null;
}

/** Two rubrics criterion by criterion, in the order of the left; what only the right has follows. */
export function rubricSides(a: Rubric, b: Rubric): RubricSides {
  const pairs = pairCriteria(a, b);
  const taken = new Set(pairs.values());
  const alone = (r: Rubric, c: Criterion): Rubric => ({
    ...r,
    id: '',
    title: '',
    mode: a.mode,
    criteria: [c],
  });
  const same = (c: Criterion, d: Criterion): boolean =>
    compareRubrics([alone(a, c)], [alone(b, d)])[0]!.state === 'intact';
  const rows: CriterionPair[] = [
    ...a.criteria.map((left): CriterionPair => {
      const right = pairs.get(left) ?? null;
      const levels = levelPairs(left, right);
      return { state: !right ? 'missing' : same(left, right) ? 'intact' : 'altered', left, right, levels };
    }),
    ...b.criteria
      .filter((c) => !taken.has(c))
      .map((right): CriterionPair => ({
        state: 'extra',
        left: null,
        right,
        levels: right.levels.map((l) => ({ left: null, right: l })),
      })),
  ];
  return { rows, effect: gradeEffect(a, b) };
}

function levelPairs(left: Criterion, right: Criterion | null): CriterionPair['levels'] {
  const matched = right ? pairLevels(left, right) : new Map<RubricLevel, RubricLevel>();
  const used = new Set(matched.values());
  return [
    ...left.levels.map((l) => ({ left: l, right: matched.get(l) ?? null })),
    ...(right?.levels ?? []).filter((l) => !used.has(l)).map((l) => ({ left: null, right: l })),
  ];
}
