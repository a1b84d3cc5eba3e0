import { randomUUID } from 'node:crypto';
import { and, desc, eq, isNull, lt, sql, type SQL } from 'drizzle-orm';
import type { CourseOutline } from '@alforja/core';
import type { CourseListing, Snapshot } from '../../shared/courses.ts';
import { db, type Transaction } from './database.ts';
import { listingCodec, outlineCodec } from './documents/courses.ts';
import { courses, snapshots } from './schema.ts';
import { throwing } from './thrown.ts';

const read = (row: typeof snapshots.$inferSelect): Snapshot => ({
  id: row.id,
  courseId: row.courseId,
  packageId: row.packageId,
  takenAt: row.takenAt,
  outline: outlineCodec.read(row.outline),
});

async function newest(of: SQL | undefined): Promise<Snapshot | null> {
  // By the order in which they came: the clock may have been set back since.
  const [row] = await db
    .select()
    .from(snapshots)
    .where(of)
    .orderBy(desc(sql`rowid`))
    .limit(1);
  return row ? read(row) : null;
}

/** The latest snapshot of the whole of a course. */
export const latestSnapshot = (courseId: string): Promise<Snapshot | null> =>
  newest(and(eq(snapshots.courseId, courseId), eq(snapshots.purpose, 'whole'), isNull(snapshots.thrownAt)));

/** The outline of a course as it was last asked for, whatever for. */
export const latestOutline = (courseId: string): Promise<Snapshot | null> =>
  newest(eq(snapshots.courseId, courseId));

export async function snapshotById(id: string): Promise<Snapshot | null> {
  const [row] = await db.select().from(snapshots).where(eq(snapshots.id, id));
  return row ? read(row) : null;
}

export async function insertSnapshot(
  tx: Transaction,
  given: Omit<Snapshot, 'id'> & { readonly id?: string; readonly purpose: 'whole' | 'back' },
): Promise<Snapshot> {
  const { purpose, id = randomUUID(), ...said } = given;
  await tx.insert(snapshots).values({ ...said, id, purpose, outline: outlineCodec.write(said.outline) });
  return { ...said, id };
}

/** The outline of a snapshot as the course has it now: attaching rubrics has changed it. */
export const setOutline = (tx: Transaction, id: string, outline: CourseOutline): Promise<unknown> =>
  tx
    .update(snapshots)
    .set({ outline: outlineCodec.write(outline) })
    .where(eq(snapshots.id, id));

/** The latest outline of every course that is listed and has rubrics. */
export async function outlinesWithRubrics(): Promise<
  { course: CourseListing; outline: CourseOutline; takenAt: number }[]
> {
  const rows = await db
    .select({
      outline: snapshots.outline,
      takenAt: sql<number>`max(${snapshots.takenAt})`,
      listing: courses.listing,
    })
    .from(snapshots)
    .innerJoin(courses, eq(courses.id, snapshots.courseId))
    .groupBy(snapshots.courseId)
    .having(sql`json_array_length(${snapshots.outline}, '$.rubrics') > 0`);
  return rows.map(({ outline, takenAt, listing }) => ({
    course: listingCodec.read(listing),
    outline: outlineCodec.read(outline),
    takenAt,
  }));
}

/** When the whole of a course was looked into, the latest first; looks that were thrown away apart. */
export const looksInto = (courseId: string): Promise<{ id: string; packageId: string; takenAt: number }[]> =>
  db
    .select({ id: snapshots.id, packageId: snapshots.packageId, takenAt: snapshots.takenAt })
    .from(snapshots)
    .where(and(eq(snapshots.courseId, courseId), eq(snapshots.purpose, 'whole'), isNull(snapshots.thrownAt)))
    .orderBy(desc(snapshots.takenAt));

/** Throws a look away, or brings it back. @param at ms; null brings it back. @returns whether there is one */
export const setLookThrown = throwing(snapshots);

/** Removes looks that were thrown away before a moment, but for those that a transfer rests on. */
export const purgeLooks = (tx: Transaction, before: number): Promise<unknown> =>
  tx
    .delete(snapshots)
    .where(
      and(
        lt(snapshots.thrownAt, before),
        sql`NOT EXISTS (SELECT 1 FROM transfers t WHERE ${snapshots.id} IN (t.source_snapshot, t.dest_snapshot, t.back_snapshot))`,
      ),
    );

/**
 * Removes looks from before a moment (ms), but for those that a transfer rests on and the latest of each course.
 * @returns how many
 */
export const purgeOldLooks = async (tx: Transaction, before: number): Promise<number> =>
  (
    await tx
      .delete(snapshots)
      .where(
        and(
          lt(snapshots.takenAt, before),
          sql`NOT EXISTS (SELECT 1 FROM transfers t WHERE ${snapshots.id} IN (t.source_snapshot, t.dest_snapshot, t.back_snapshot))`,
          sql`rowid NOT IN (SELECT max(rowid) FROM snapshots GROUP BY course_id)`,
          sql`rowid NOT IN (SELECT max(rowid) FROM snapshots WHERE purpose = 'whole' GROUP BY course_id)`,
        ),
      )
      .returning({ id: snapshots.id })
  ).length;
