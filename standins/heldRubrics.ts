import { readHolding, rubricPoints, writeRubrics, type Rubric } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import type { Habits } from './habits.ts';
import type { Course, RubricForm, ThingState } from './types.ts';

/** One rubric as the system gives it out: as a table, or as CASE. */
export interface RubricResource {
  readonly id: string;
  readonly locked: boolean;
  /** Ids of items, things and assignments of the course. */
  readonly attachedTo: readonly string[];
  readonly form: RubricForm;
  readonly content: string;
}

export const rubricResources = (course: Course, form: RubricForm): Promise<RubricResource[]> =>
  Promise.all(
    course.holding.rubrics.map(async (r) => ({
      id: r.id,
      locked: course.things.find((t) => t.id === r.id)?.locked ?? false,
      attachedTo: r.attachedTo,
      form,
      content: new TextDecoder().decode((await writeRubrics([r], form, nodePlatform)).bytes),
    })),
  );

/** What the habits that touch content make of a rubric that arrives. */
export function rubricWithHabits(rubric: Rubric, habits: Habits): Rubric {
  const round = (n: number): number => (habits.roundsPoints ? Math.round(n) : n);
  return {
    ...rubric,
    criteria: rubric.criteria.map((c) => ({
      ...c,
      levels: c.levels.map((l) => ({
        ...l,
        description: habits.dropsLevelTexts ? '' : l.description,
        points: l.points && { low: round(l.points.low), high: round(l.points.high) },
      })),
    })),
  };
}

/** Puts a rubric into a course, attached to nothing yet. @returns its id */
export function addRubric(
  course: Course,
  rubric: Rubric,
  title: string,
  how: Pick<ThingState, 'locked' | 'copied'>,
): string {
  const id = `r${course.next++}`;
  course.things.push({
    id,
    kind: 'rubric',
    section: null,
    hidden: false,
    opens: null,
    closes: null,
    review: null,
    openAttempts: 0,
    ...how,
  });
  const own = { ...rubric, id, title, attachedTo: [], origin: null };
  course.holding = { ...course.holding, rubrics: [...course.holding.rubrics, own] };
  return id;
}

/** A second copy of every rubric that stood there. @returns their ids */
export const appendAll = (course: Course): string[] =>
  course.holding.rubrics.map((r) => addRubric(course, r, r.title, { copied: true }));

/**
 * Attaches a rubric to these items, things and assignments alone, or with the habit for copies to nothing.
 * @returns the ids that the course does not have
 */
export function attach(course: Course, id: string, to: readonly string[], habits: Habits): string[] {
  const known = new Set([
    ...course.holding.items.map((i) => i.id),
    ...[...course.things, ...course.assignments].map((t) => t.id),
  ]);
  const unknown = to.filter((t) => !known.has(t));
  if (unknown.length > 0) return unknown;
  const lost = habits.losesAttachments && course.things.find((t) => t.id === id)?.copied === true;
  const attachedTo = lost ? [] : [...new Set(to)];
  course.holding = {
    ...course.holding,
    rubrics: course.holding.rubrics.map((r) => (r.id === id ? { ...r, attachedTo } : r)),
  };
  return [];
}

/** Reads a rubric that was sent in. @throws Error with words for the one who sent it */
export async function rubricFrom(form: RubricForm, content: string): Promise<Rubric> {
  const bytes = new TextEncoder().encode(content);
  const { rubrics } = await readHolding(form === 'csv' ? 'rubric.csv' : 'rubric.json', bytes, nodePlatform);
  if (rubrics.length !== 1) throw new Error('That is not one rubric.');
  return rubrics[0]!;
}

export const rubricWorth = (course: Course, id: string): number => {
  const rubric = course.holding.rubrics.find((r) => r.id === id);
  return rubric ? (rubricPoints(rubric) ?? 0) : 0;
};
