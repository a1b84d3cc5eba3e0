import { quizItems, UNNAMED, type Tree } from '@alforja/core';
import { and, eq, isNull, sql } from 'drizzle-orm';
import { db, type Transaction } from './database.ts';
import { containers, packages } from './schema.ts';

/** A quiz or bank by where it stands. */
export interface ContainerHit {
  readonly kind: 'quiz' | 'bank';
  readonly nodeId: string;
  readonly title: string;
  readonly items: number;
  readonly packageId: string;
  readonly packageName: string;
  readonly readingId: string;
  readonly broughtAt: number;
  /** The course that was looked into, where it was no file. */
  readonly courseId: string | null;
  /** What is made here that it was set down from. */
  readonly madeId: string | null;
}

/** Rows that one statement puts in. */
const ROWS = 500;

export async function insertContainers(
  tx: Transaction,
  readingId: string,
  { quizzes, banks }: Pick<Tree, 'quizzes' | 'banks'>,
): Promise<void> {
  const rows = [
    ...quizzes.map((q, at) => ({
      readingId,
      kind: 'quiz' as const,
      at,
      nodeId: q.id,
      title: q.title || UNNAMED.quiz,
      items: new Set(quizItems(q)).size,
    })),
    ...banks.map((b, at) => ({
      readingId,
      kind: 'bank' as const,
      at,
      nodeId: b.id,
      title: b.title || UNNAMED.bank,
      items: b.items.length,
    })),
  ];
  for (let from = 0; from < rows.length; from += ROWS)
    await tx.insert(containers).values(rows.slice(from, from + ROWS));
}

export const removeContainers = (tx: Transaction, readingId: string): Promise<unknown> =>
  tx.delete(containers).where(eq(containers.readingId, readingId));

/**
 * Every quiz and bank of the files that were brought, newest first, of each course as last looked into, and of what is
 * made here.
 */
export async function listContainers(): Promise<ContainerHit[]> {
  const latest = sql<string | null>`(
    SELECT s.course_id FROM snapshots s WHERE s.package_id = ${packages.id} AND s.purpose = 'whole'
      AND s.thrown_at IS NULL AND s.taken_at = (
        SELECT max(o.taken_at) FROM snapshots o
        WHERE o.course_id = s.course_id AND o.purpose = 'whole' AND o.thrown_at IS NULL) LIMIT 1)`;
  const rows = await db
    .select({
      kind: containers.kind,
      nodeId: containers.nodeId,
      title: containers.title,
      items: containers.items,
      packageId: packages.id,
      packageName: packages.name,
      cameBy: packages.cameBy,
      readingId: containers.readingId,
      broughtAt: packages.broughtAt,
      courseId: latest.as('course_id'),
      madeId: sql<string | null>`(
        SELECT m.id FROM made m WHERE m.package_id = ${packages.id} AND m.thrown_at IS NULL LIMIT 1)`.as(
        'made_id',
      ),
    })
    .from(containers)
    .innerJoin(packages, eq(packages.readingId, containers.readingId))
    .where(and(eq(packages.state, 'ready'), isNull(packages.thrownAt)))
    .orderBy(sql`${packages.cameBy} = 'course'`, sql`${packages.broughtAt} DESC`, containers.at);
  return rows.filter((r) => r.cameBy === 'file' || r.courseId !== null || r.madeId !== null);
}
