import { sql } from 'drizzle-orm';
import { THROWABLE, type Throwable, type Thrown } from '../../shared/trash.ts';
import { purgeBatches, setBatchThrown } from './batches.ts';
import { removePairs } from './batchPairs.ts';
import type { Transaction } from './database.ts';
import { purgeMade, setMadeThrown } from './made.ts';
import { purgePackages, setPackageThrown } from './packages.ts';
import { batches, courses, made, packages, snapshots, transfers } from './schema.ts';
import { purgeLooks, setLookThrown } from './snapshots.ts';
import { removeStraySteps } from './editSteps.ts';
import { removeStrayArrivalRows } from './arrivalRows.ts';
import { removeStrayTicks } from './ticks.ts';
import { thrownOf } from './thrown.ts';
import { purgeTransfers, setTransferThrown } from './transfers.ts';

/** What was thrown away: still there, and out of every list. */

const SET = {
  package: setPackageThrown,
  transfer: setTransferThrown,
  batch: setBatchThrown,
  look: setLookThrown,
  made: setMadeThrown,
} as const;

/** Throws something away, or brings it back. @param at ms; null brings it back. @returns whether there is one */
export const setThrown = (
  tx: Transaction,
  kind: Throwable,
  id: string,
  at: number | null,
): Promise<boolean> => SET[kind](tx, id, at);

/** A look is called by the course it is of. */
const courseTitle = sql<string>`coalesce(
  (SELECT json_extract(${courses.listing}, '$.title') FROM ${courses} WHERE ${courses.id} = ${snapshots.courseId}),
  ${snapshots.courseId})`;

/** Everything that was thrown away, the latest first. */
export async function listThrown(): Promise<Thrown[]> {
  const lists = {
    package: thrownOf(packages, sql<string>`${packages.name}`),
    transfer: thrownOf(transfers, sql<string>`${transfers.title}`),
    batch: thrownOf(batches, sql<string>`${batches.title}`),
    look: thrownOf(snapshots, courseTitle),
    made: thrownOf(made, sql<string>`${made.title}`),
  } satisfies Record<Throwable, unknown>;
  const all = await Promise.all(
    THROWABLE.map(async (kind) => (await lists[kind]).map((thrown) => ({ ...thrown, kind }))),
  );
  return all.flat().sort((a, b) => b.thrownAt - a.thrownAt);
}

/**
 * Removes for good what was thrown away before a moment. A package or look that a transfer rests on stays, out of
 * sight: the transfer's receipt has to stay true. What was read of packages is swept afterwards.
 * @returns how many packages went
 */
export async function purge(tx: Transaction, before: number): Promise<number> {
  const batches = await purgeBatches(tx, before);
  await removePairs(tx, batches);
  await purgeTransfers(tx, before, batches);
  await removeStrayTicks(tx);
  while (await removeStrayArrivalRows(tx));
  await removeStraySteps(tx);
  await purgeLooks(tx, before);
  await purgeMade(tx, before);
  return purgePackages(tx, before);
}
