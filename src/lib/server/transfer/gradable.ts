import { UNNAMED } from '@alforja/core';
import type { Snapshot } from '../../shared/courses.ts';
import type { Gradable } from '../../shared/transfers.ts';
import { gradableItems } from '../library/packages.ts';
import { latestSnapshot } from '../store/snapshots.ts';

/** Items and assignments of a course, as it stood at a moment, that a rubric can be attached to. */
export async function gradableIn({ packageId, outline }: Snapshot): Promise<Gradable[]> {
  const work = (outline.assignments ?? []).map((a): Gradable => ({
    kind: 'assignment',
    id: a.id,
    name: a.title || UNNAMED.assignment,
    points: a.points,
  }));
  return [...(await gradableItems(packageId)), ...work];
}

/** What a rubric can be attached to in a course as it was last read; null where it was not. */
export async function gradableInCourse(courseId: string): Promise<Gradable[] | null> {
  const taken = await latestSnapshot(courseId);
  return taken && (await gradableIn(taken));
}
