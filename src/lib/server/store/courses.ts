import { eq } from 'drizzle-orm';
import { partsOfCourse, type CourseListing } from '../../shared/courses.ts';
import { db, type Transaction } from './database.ts';
import { listingCodec } from './documents/courses.ts';
import { courses } from './schema.ts';

/** Every course of every system, newest term first. */
export async function allCourses(): Promise<CourseListing[]> {
  const rows = await db.select({ listing: courses.listing }).from(courses);
  return rows
    .map((r) => listingCodec.read(r.listing))
    .sort(
      (a, b) =>
        b.termStart.localeCompare(a.termStart) ||
        a.title.localeCompare(b.title) ||
        a.section.localeCompare(b.section),
    );
}

export async function courseById(id: string): Promise<CourseListing | null> {
  const [row] = await db.select({ listing: courses.listing }).from(courses).where(eq(courses.id, id));
  return row ? listingCodec.read(row.listing) : null;
}

/** The courses of a system are these, and no others. */
export async function replaceCourses(
  tx: Transaction,
  systemId: string,
  listings: readonly CourseListing[],
): Promise<void> {
  await tx.delete(courses).where(eq(courses.systemId, systemId));
  for (const listing of listings) {
    const { classId } = partsOfCourse(listing.id);
    await tx
      .insert(courses)
      .values({ id: listing.id, systemId, classId, listing: listingCodec.write(listing) });
  }
}
