import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Finding } from '@alforja/core';
import { partsOfCourse, type CourseListing, type SnapshotView } from '../../shared/courses.ts';
import { ConnectorError } from '../connectors/types.ts';
import { db, write } from '../db/client.ts';
import { courses, packages, snapshots, systems } from '../db/schema.ts';
import { storeBytes } from '../files.ts';
import { courseById } from '../services/courses.ts';
import { connectorTo, systemById } from '../services/systems.ts';
import type { Handler, JobContext } from './context.ts';
import { read } from './packageJobs.ts';

/** Looks at the courses of a system. */
export const sync: Handler = {
  async run(subject, { tell }) {
    const system = await systemById(subject);
    if (!system) return;
    tell(`Looking at the courses of ${system.name}`, 0, 0);
    const connector = await connectorTo(subject);
    try {
      const [about, found] = [await connector.about(), await connector.courses()];
      await write(async (tx) => {
        await tx.delete(courses).where(eq(courses.systemId, subject));
        for (const { classId, ...c } of found) {
          const id = `${subject}:${classId}`;
          const listing: CourseListing = { ...c, id, systemId: subject, system: system.name };
          await tx
            .insert(courses)
            .values({ id, systemId: subject, classId, listing: JSON.stringify(listing) });
        }
        await tx
          .update(systems)
          .set({ syncedAt: Date.now(), trouble: null, about: JSON.stringify(about) })
          .where(eq(systems.id, subject));
      });
    } catch (error) {
      if (!(error instanceof ConnectorError)) throw error;
      // The courses last seen stay in sight.
      await write((tx) =>
        tx
          .update(systems)
          .set({ trouble: error.message, syncedAt: Date.now() })
          .where(eq(systems.id, subject)),
      );
    }
  },
  failed: async () => undefined,
};

/** Looks into one course: its outline, and everything it holds. */
export const fetchCourse: Handler = {
  async run(subject, context) {
    await lookInto(subject, context);
  },
  failed: async () => undefined,
};

export interface Look extends SnapshotView {
  /** Whether these very bytes had come before. */
  readonly known: boolean;
}

/** Fetches a course whole, or the things named, and keeps what came; reading is a step of its own. */
export async function fetchLook(
  courseId: string,
  { signal, tell }: JobContext,
  over: {
    readonly things?: readonly string[];
    readonly purpose?: 'look' | 'back';
    readonly onRetry?: (what: string) => void;
  } = {},
): Promise<Look> {
  const course = await courseById(courseId);
  if (!course) throw new Error('That course is no longer in sight; look at its system again.');
  tell(`Exporting ${course.title}, ${course.system}`, 0, 0);
  const connector = await connectorTo(course.systemId, over.onRetry);
  const { classId } = partsOfCourse(courseId);
  const bytes = await connector.exportPackage(classId, over.things ?? null, signal);
  const outline = await connector.outline(classId);
  const stored = await storeBytes(bytes);
  const name = `${course.title}, section ${course.section}, ${course.term} (${course.system})`;
  const takenAt = Date.now();
  const id = randomUUID();
  const row = {
    id: randomUUID(),
    ...stored,
    name,
    broughtAt: takenAt,
    state: 'reading' as const,
    cameBy: 'course' as const,
  };
  return write(async (tx) => {
    const [had] = await tx
      .select({ id: packages.id })
      .from(packages)
      .where(eq(packages.sha256, stored.sha256));
    if (!had) await tx.insert(packages).values(row);
    const packageId = had?.id ?? row.id;
    await tx.insert(snapshots).values({
      id,
      courseId,
      packageId,
      outline: JSON.stringify(outline),
      takenAt,
      purpose: over.purpose ?? 'look',
    });
    return { id, packageId, takenAt, outline, known: had !== undefined };
  });
}

/** Reads a package within another job, unless it has been read. */
export async function ensureRead(packageId: string, context: JobContext): Promise<void> {
  const [row] = await db.select({ state: packages.state }).from(packages).where(eq(packages.id, packageId));
  if (row?.state === 'ready') return;
  try {
    await read.run(packageId, context);
  } catch (error) {
    const found = (error as { finding?: Finding }).finding;
    if (found) await read.failed(packageId, found);
    throw error;
  }
}

export async function lookInto(courseId: string, context: JobContext): Promise<Look> {
  const look = await fetchLook(courseId, context);
  await ensureRead(look.packageId, context);
  return look;
}
