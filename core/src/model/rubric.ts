import type { MetaField, Origin } from './origin.ts';

/** How a rubric counts: by points, in percent of weights that add up to 100, or not at all. */
export type RubricMode = 'points' | 'percentage' | 'unscored';

export interface RubricLevel {
  readonly id: string;
  /** Its label: "Excellent". */
  readonly title: string;
  /**
   * Both ends are the same for one value; null where the level gives no points. Without the criterion's
   * weight.
   */
  readonly points: { readonly low: number; readonly high: number } | null;
  readonly description: string;
  /** What is told to a student who is given this level. */
  readonly feedback: string;
}

export interface Criterion {
  readonly id: string;
  readonly title: string;
  readonly description: string;
  /** Multiplies the level's points; null counts as 1. */
  readonly weight: number | null;
  /** What it assesses: the address of an outcome (CASE, "CFItemURI"). */
  readonly outcome: string | null;
  /** Best first or worst first, as the source has them. */
  readonly levels: readonly RubricLevel[];
}

export interface Rubric {
  readonly id: string;
  readonly title: string;
  readonly description: string;
  readonly mode: RubricMode;
  readonly criteria: readonly Criterion[];
  /** Whether graders write a comment of their own beside the levels; absent is not said. */
  readonly freeComments?: boolean;
  /** Ids of quiz items and assignments that are graded by it. */
  readonly attachedTo: readonly string[];
  readonly metadata: readonly MetaField[];
  readonly origin: Origin | null;
}

/** The most a criterion can give, weight included; 0 where no level gives points. */
export const criterionPoints = (c: Criterion): number =>
  (c.weight ?? 1) * Math.max(0, ...c.levels.map((l) => l.points?.high ?? 0));

/**
 * The total of a rubric: the sum over criteria of weight times highest level; null where it is not scored.
 * Binary noise of sums like 0.1 + 0.2 is taken off.
 */
export function rubricPoints(rubric: Pick<Rubric, 'mode' | 'criteria'>): number | null {
  if (rubric.mode === 'unscored') return null;
  return Number(rubric.criteria.reduce((sum, c) => sum + criterionPoints(c), 0).toPrecision(12));
}

/** What a rubric is worth beside what it grades; null where it counts by percentage or is not scored. */
export const gradedWorth = (rubric: Pick<Rubric, 'mode' | 'criteria'>): number | null =>
  rubric.mode === 'percentage' ? null : rubricPoints(rubric);

/**
 * What a grader's ticks come to.
 * @param ticks level id by criterion id; a criterion without a tick gives nothing
 */
export function gradeOf(
  rubric: Pick<Rubric, 'mode' | 'criteria'>,
  ticks: ReadonlyMap<string, string>,
): number | null {
  if (rubric.mode === 'unscored') return null;
  const given = rubric.criteria.map((c) => {
    const level = c.levels.find((l) => l.id === ticks.get(c.id));
    return (c.weight ?? 1) * (level?.points?.high ?? 0);
  });
  return Number(given.reduce((a, b) => a + b, 0).toPrecision(12));
}
