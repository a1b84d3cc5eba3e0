import { and, eq, sql } from 'drizzle-orm';
import type { Tree } from '@alforja/core';
import { NOTHING_PUT_RIGHT, type PutRight } from '../../shared/edits.ts';
import type { FamilyListing } from '../../shared/types.ts';
import { removeContainers } from './containers.ts';
import { write, type Transaction } from './database.ts';
import { putRightCodec } from './documents/edits.ts';
import { familiesCodec, treeCodec } from './documents/packages.ts';
import { removeSomeItems } from './items.ts';
import { readings } from './schema.ts';

/** What was read of a package, but for its items. */
export interface ReadParts {
  readonly tree: Tree;
  readonly families: readonly FamilyListing[];
  /** What its edits come to; nothing where it has none. */
  readonly putRight: PutRight;
}

export type ReadRow = Pick<typeof readings.$inferSelect, 'tree' | 'families' | 'putRight'>;

export const readFrom = (row: ReadRow): ReadParts => ({
  tree: treeCodec.read(row.tree),
  families: familiesCodec.readOptional(row.families) ?? [],
  putRight: putRightCodec.readOptional(row.putRight) ?? NOTHING_PUT_RIGHT,
});

/** Whose a reading is: that package's, by the job that makes it. */
export type ReadingOf = Pick<typeof readings.$inferSelect, 'id' | 'packageId' | 'jobId'>;

/** Puts a reading in, its items apart. */
export const insertReading = (tx: Transaction, of: ReadingOf, parts: ReadParts): Promise<unknown> =>
  tx.insert(readings).values({
    ...of,
    tree: treeCodec.write(parts.tree),
    families: familiesCodec.write(parts.families),
    putRight: putRightCodec.write(parts.putRight),
  });

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
