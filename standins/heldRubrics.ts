import type { Habits } from './habits.ts';
import { writeRubric, type HeldRubric, type RubricForm } from './formats/rubrics.ts';
import type { Course, ThingState } from './types.ts';

/** One rubric as the system gives it out: as a table, or as CASE. */
interface RubricResource {
  readonly id: string;
  readonly locked: boolean;
  /** Ids of items, things and assignments of the course. */
  readonly attachedTo: readonly string[];
  readonly form: RubricForm;
  readonly content: string;
}

export const rubricResources = (course: Course, form: RubricForm): RubricResource[] =>
  course.rubrics.map((r) => ({
    id: r.id,
    locked: course.things.find((t) => t.id === r.id)?.locked ?? false,
    attachedTo: r.attachedTo,
    form,
    content: writeRubric(form, r),
  }));

/** What the habits that touch content make of a rubric that arrives. */
export function rubricWithHabits(rubric: HeldRubric, habits: Habits): HeldRubric {
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
  rubric: HeldRubric,
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
  course.rubrics = [...course.rubrics, { ...rubric, id, title, attachedTo: [] }];
  return id;
}

/** A second copy of every rubric that stood there. @returns their ids */
export const appendAll = (course: Course): string[] =>
  course.rubrics.map((r) => addRubric(course, r, r.title, { copied: true }));

/**
 * Attaches a rubric to these items, things and assignments alone, or with the habit for copies to nothing.
 * @returns the ids that the course does not have
 */
export function attach(course: Course, id: string, to: readonly string[], habits: Habits): string[] {
  const known = new Set([...course.held.items, ...course.things, ...course.assignments].map((x) => x.id));
  const unknown = to.filter((t) => !known.has(t));
  if (unknown.length > 0) return unknown;
  const lost = habits.losesAttachments && course.things.find((t) => t.id === id)?.copied === true;
  const attachedTo = lost ? [] : [...new Set(to)];
  course.rubrics = course.rubrics.map((r) => (r.id === id ? { ...r, attachedTo } : r));
  return [];
}
