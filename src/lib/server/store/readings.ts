import { and, eq, isNotNull, sql } from 'drizzle-orm';
import { Lately, type Tree } from '@alforja/core';
import { NOTHING_PUT_RIGHT, type PutRight } from '../../shared/edits.ts';
import type { FamilyListing, FirstRow } from '../../shared/types.ts';
import { removeContainers } from './containers.ts';
import { db, write, type Transaction } from './database.ts';
import { putRightCodec } from './documents/edits.ts';
import { familiesCodec, firstCodec, treeCodec } from './documents/packages.ts';
import { removeSomeItems } from './items.ts';
import { readings } from './schema.ts';

/** What was read of a package, but for its items. */
export interface ReadParts {
  readonly tree: Tree;
  readonly families: readonly FamilyListing[];
  /** What its edits come to; nothing where it has none. */
  readonly putRight: PutRight;
}

/** What was asked for last, by reading: one that is whole never changes, and a large one takes long to parse. */
const lately = new Lately<ReadParts>(3);

/** What was read of a package, but for its items; null where there is no such reading any more. */
export async function readingById(id: string): Promise<ReadParts | null> {
  const had = lately.get(id);
  if (had) return had;
  const parts = await partsOf(id);
  if (parts) lately.set(id, parts);
  return parts;
}

async function partsOf(id: string): Promise<ReadParts | null> {
  const { tree, families, putRight } = readings;
  const [row] = await db.select({ tree, families, putRight }).from(readings).where(eq(readings.id, id));
  return row
    ? {
        tree: treeCodec.read(row.tree),
        families: familiesCodec.readOptional(row.families) ?? [],
        putRight: putRightCodec.readOptional(row.putRight) ?? NOTHING_PUT_RIGHT,
      }
    : null;
}

/** Whose a reading is: that package's, by the job that makes it. */
export type ReadingOf = Pick<typeof readings.$inferSelect, 'id' | 'packageId' | 'jobId'>;

/** Puts a reading in that is being made: its items come one by one, and what holds them last. */
export const beginReading = (tx: Transaction, of: ReadingOf): Promise<unknown> =>
  tx.insert(readings).values({ ...of, tree: '' });

/** Notes the first items that a reading has come upon, for those who wait for it. */
export const noteFirst = (tx: Transaction, id: string, first: readonly FirstRow[]): Promise<unknown> =>
  tx
    .update(readings)
    .set({ first: firstCodec.write(first) })
    .where(eq(readings.id, id));

/** The first items that have been read of a package by the job that is at it; none before there are some. */
export async function firstRead(packageId: string): Promise<readonly FirstRow[]> {
  const [row] = await db
    .select({ first: readings.first })
    .from(readings)
    .where(and(eq(readings.packageId, packageId), isNotNull(readings.jobId), isNotNull(readings.first)))
    .limit(1);
  return firstCodec.readOptional(row?.first ?? null) ?? [];
}

/** Adds what was read beside the items; only then may a package be shown by it. */
export const finishReading = (tx: Transaction, id: string, parts: ReadParts): Promise<unknown> =>
  tx
    .update(readings)
    .set({
      first: null,
      tree: treeCodec.write(parts.tree),
      families: familiesCodec.write(parts.families),
      putRight: putRightCodec.write(parts.putRight),
    })
    .where(eq(readings.id, id));

/** Lets go of what a job has read of a package: it is removed then, unless the package is shown by it. */
export const releaseReadings = (
  tx: Transaction,
  { packageId, jobId }: Pick<ReadingOf, 'packageId' | 'jobId'>,
): Promise<unknown> =>
  tx
    .update(readings)
    .set({ jobId: null })
    .where(and(eq(readings.packageId, packageId), sql`job_id IS ${jobId}`));

/** Nobody is shown by these, and nobody makes them. */
const STRAY = sql`NOT EXISTS (SELECT 1 FROM packages p WHERE p.reading_id = readings.id)
  AND NOT EXISTS (SELECT 1 FROM jobs j WHERE j.id = readings.job_id AND j.state = 'running')`;

/** Removes a part of a reading that nothing shows. @returns false where there is none */
async function sweepSome(tx: Transaction): Promise<boolean> {
  const [stray] = await tx.select({ id: readings.id }).from(readings).where(STRAY).limit(1);
  if (!stray) return false;
  if (await removeSomeItems(tx, stray.id)) return true;
  await removeContainers(tx, stray.id);
  await tx.delete(readings).where(eq(readings.id, stray.id));
  return true;
}

/** Removes readings that nothing shows, a little at a time, so that other changes get in between. */
export async function sweepReadings(): Promise<void> {
  while (await write(sweepSome));
}
