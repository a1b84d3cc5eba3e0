import { desc, eq, isNotNull, sql } from 'drizzle-orm';
import type { Throwable, Thrown } from '../../shared/trash.ts';
import { purgeBatches, setBatchThrown } from './batches.ts';
import { removePairs } from './batchPairs.ts';
import { db, type Transaction } from './database.ts';
import { removeReading } from './items.ts';
import { purgePackages, setPackageThrown } from './packages.ts';
import { batches, courses, packages, snapshots, transfers } from './schema.ts';
import { purgeLooks, setLookThrown } from './snapshots.ts';
import { removeStrayTicks } from './ticks.ts';
import { purgeTransfers, setTransferThrown } from './transfers.ts';

/** What was thrown away: still there, and out of every list. */

const SET = {
  package: setPackageThrown,
  transfer: setTransferThrown,
  batch: setBatchThrown,
  look: setLookThrown,
} as const;

/** Throws something away, or brings it back. @param at ms; null brings it back. @returns whether there is one */
export const setThrown = (
  tx: Transaction,
  kind: Throwable,
  id: string,
  at: number | null,
): Promise<boolean> => SET[kind](tx, id, at);

/** Everything that was thrown away, the latest first. */
export async function listThrown(): Promise<Thrown[]> {
  const named = async (
    kind: Throwable,
    rows: Promise<{ id: string; name: string; thrownAt: number | null }[]>,
  ) => (await rows).map((r) => ({ ...r, kind, thrownAt: r.thrownAt! }));
  const title = sql<string>`coalesce(json_extract(${courses.listing}, '$.title'), ${snapshots.courseId})`;
  const all = await Promise.all([
    named(
      'package',
      db
        .select({ id: packages.id, name: packages.name, thrownAt: packages.thrownAt })
        .from(packages)
        .where(isNotNull(packages.thrownAt)),
    ),
    named(
      'transfer',
      db
        .select({ id: transfers.id, name: transfers.title, thrownAt: transfers.thrownAt })
        .from(transfers)
        .where(isNotNull(transfers.thrownAt)),
    ),
    named(
      'batch',
      db
        .select({ id: batches.id, name: batches.title, thrownAt: batches.thrownAt })
        .from(batches)
        .where(isNotNull(batches.thrownAt)),
    ),
    named(
      'look',
      db
        .select({ id: snapshots.id, name: title, thrownAt: snapshots.thrownAt })
        .from(snapshots)
        .leftJoin(courses, eq(courses.id, snapshots.courseId))
        .where(isNotNull(snapshots.thrownAt))
        .orderBy(desc(snapshots.thrownAt)),
    ),
  ]);
  return all.flat().sort((a, b) => b.thrownAt - a.thrownAt);
}

/**
 * Removes for good what was thrown away before a moment. A package or look that a transfer rests on stays, out of
 * sight: the transfer's receipt has to stay true.
 */
export async function purge(tx: Transaction, before: number): Promise<void> {
  const batches = await purgeBatches(tx, before);
  await removePairs(tx, batches);
  await purgeTransfers(tx, before, batches);
  await removeStrayTicks(tx);
  await purgeLooks(tx, before);
  for (const reading of await purgePackages(tx, before)) await removeReading(tx, reading);
}
