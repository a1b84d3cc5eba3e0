import { randomUUID } from 'node:crypto';
import { and, desc, eq, type SQL } from 'drizzle-orm';
import { find, type CourseOutline } from '@alforja/core';
import type { CourseListing, SnapshotView } from '../../shared/courses.ts';
import { db, write } from '../db/client.ts';
import { courses, snapshots } from '../db/schema.ts';

export async function allCourses(): Promise<CourseListing[]> {
  const rows = await db.select({ listing: courses.listing }).from(courses);
  return rows
    .map((r) => JSON.parse(r.listing) as CourseListing)
    .sort(
      (a, b) =>
        b.termStart.localeCompare(a.termStart) ||
        a.title.localeCompare(b.title) ||
        a.section.localeCompare(b.section),
    );
}

/** Courses by any part of title, code, term, section or a person's name, in any order; newest term first. */
export async function findCourses(query: string): Promise<CourseListing[]> {
  const all = await allCourses();
  return find(
    all,
    query,
    (c) => `${c.title} ${c.code} ${c.term} section ${c.section} ${c.people.join(' ')} ${c.system}`,
  ).map((h) => h.entry);
}

export async function courseById(id: string): Promise<CourseListing | null> {
  const [row] = await db.select({ listing: courses.listing }).from(courses).where(eq(courses.id, id));
  return row ? (JSON.parse(row.listing) as CourseListing) : null;
}

const view = (row: typeof snapshots.$inferSelect): SnapshotView => ({
  id: row.id,
  packageId: row.packageId,
  takenAt: row.takenAt,
  outline: JSON.parse(row.outline) as CourseOutline,
});

async function newest(of: SQL | undefined): Promise<SnapshotView | null> {
  const [row] = await db.select().from(snapshots).where(of).orderBy(desc(snapshots.takenAt)).limit(1);
  return row ? view(row) : null;
}

/** The latest look at the whole of a course. */
export const latestLook = (courseId: string): Promise<SnapshotView | null> =>
  newest(and(eq(snapshots.courseId, courseId), eq(snapshots.purpose, 'look')));

/** The outline of a course as it was last asked for, whatever for. */
export const latestOutline = (courseId: string): Promise<SnapshotView | null> =>
  newest(eq(snapshots.courseId, courseId));

/** Keeps the outline of a course that was changed without fetching what it holds again. */
export async function noteOutline(courseId: string, outline: CourseOutline): Promise<void> {
  const last = await latestOutline(courseId);
  if (!last) return;
  const row = {
    id: randomUUID(),
    courseId,
    packageId: last.packageId,
    outline: JSON.stringify(outline),
    takenAt: Date.now(),
    purpose: 'back' as const,
  };
  await write((tx) => tx.insert(snapshots).values(row));
}

export async function lookById(id: string): Promise<SnapshotView | null> {
  const [row] = await db.select().from(snapshots).where(eq(snapshots.id, id));
  return row ? view(row) : null;
}
