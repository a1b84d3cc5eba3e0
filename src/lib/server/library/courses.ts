import { createHash } from 'node:crypto';
import { find, type CourseOutline } from '@alforja/core';
import { partsOfCourse, type CourseListing, type Snapshot } from '../../shared/courses.ts';
import type { Handler, JobContext } from '../runner/handler.ts';
import { allCourses, courseById } from '../store/courses.ts';
import { write } from '../store/database.ts';
import { storeBytes } from '../store/files.ts';
import { queueJob } from '../store/jobs.ts';
import { keepPackage } from '../store/packages.ts';
import { insertSnapshot, latestOutline, snapshotById } from '../store/snapshots.ts';
import { ensureRead } from './reading.ts';
import { connectorTo } from './systems.ts';

/** Courses by any part of title, code, term, section or a person's name, in any order; newest term first. */
export async function findCourses(query: string): Promise<CourseListing[]> {
  const said = (c: CourseListing): string =>
    `${c.title} ${c.code} ${c.term} section ${c.section} ${c.people.join(' ')} ${c.system}`;
  return find(await allCourses(), query, said).map((h) => h.entry);
}

/** A course named in a table: by its system's identifier, or by code, section and term. */
export function courseNamed(all: readonly CourseListing[], name: string): CourseListing | null {
  const said = name.trim().toLowerCase();
  const exact = all.filter(
    (c) => c.id.toLowerCase() === said || partsOfCourse(c.id).classId.toLowerCase() === said,
  );
  if (exact.length === 1) return exact[0]!;
  const whole = all.filter((c) => `${c.code} ${c.section} ${c.term}`.toLowerCase() === said);
  return whole.length === 1 ? whole[0]! : null;
}

/** Has a snapshot of a course taken, unless that is under way. */
export const requestSnapshot = (courseId: string): Promise<unknown> =>
  write((tx) => queueJob(tx, 'snapshot', courseId));

/**
 * Takes a snapshot of a course whole, or of the things named; reading what came is a step of its own.
 * @param over `at`: the place in its job, where that takes several of one course; a job that is taken up again goes on
 * with what it took there before
 */
export async function takeSnapshot(
  courseId: string,
  { id: job, signal, tell }: JobContext,
  over: {
    readonly things?: readonly string[];
    readonly purpose?: 'whole' | 'back';
    readonly at?: string;
  } = {},
): Promise<Snapshot> {
  const { things = null, purpose = 'whole', at = '' } = over;
  const id = idFrom(job, courseId, purpose, things === null ? 'all' : 'some', at);
  const before = await snapshotById(id);
  if (before) return before;
  const course = await courseById(courseId);
  if (!course) throw new Error('That course is no longer listed; refresh its system.');
  tell(`Exporting ${course.title}, ${course.system}`, 0, 0);
  const connector = await connectorTo(course.systemId, { signal });
  const { classId } = partsOfCourse(courseId);
  const bytes = await connector.exportPackage(classId, things, signal);
  const outline = await connector.outline(classId);
  const stored = await storeBytes(bytes);
  const name = `${course.title}, section ${course.section}, ${course.term} (${course.system})`;
  return write(async (tx) => {
    const { package: kept } = await keepPackage(tx, { name, ...stored, cameBy: 'course' });
    return insertSnapshot(tx, {
      id,
      courseId,
      packageId: kept.id,
      outline,
      takenAt: Date.now(),
      purpose,
    });
  });
}

/** An id that is the same for the same. */
const idFrom = (...of: readonly string[]): string =>
  createHash('sha256').update(JSON.stringify(of)).digest('hex').slice(0, 32);

/** Takes a snapshot of the whole of a course and reads it. */
export async function readCourse(courseId: string, context: JobContext, at = ''): Promise<Snapshot> {
  const taken = await takeSnapshot(courseId, context, { at });
  await ensureRead(taken.packageId, context);
  return taken;
}

export const snapshot: Handler = {
  waits: true,
  run: async (courseId, context) => void (await readCourse(courseId, context)),
};

/** Keeps the outline of a course that was changed, without fetching again what it holds. */
export async function noteOutline(courseId: string, outline: CourseOutline): Promise<void> {
  const last = await latestOutline(courseId);
  if (!last) return;
  const { packageId } = last;
  await write((tx) =>
    insertSnapshot(tx, { courseId, packageId, outline, takenAt: Date.now(), purpose: 'back' }),
  );
}
