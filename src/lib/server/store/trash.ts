import { and, desc, eq, inArray, isNotNull, lt, or, sql } from 'drizzle-orm';
import type { Throwable, Thrown } from '../../shared/trash.ts';
import { db, type Transaction } from './database.ts';
import { removeReading } from './items.ts';
import { batches, batchPairs, courses, packages, snapshots, ticks, transfers } from './schema.ts';

/** What was thrown away: still there, and out of every list. */

const TABLES = { package: packages, transfer: transfers, batch: batches, look: snapshots } as const;

/** Throws something away, or brings it back. @param at ms; null brings it back */
export async function setThrown(
  tx: Transaction,
  kind: Throwable,
  id: string,
  at: number | null,
): Promise<boolean> {
  const table = TABLES[kind];
  const rows = await tx
    .update(table)
    .set({ thrownAt: at })
    .where(eq(table.id, id))
    .returning({ id: table.id });
  return rows.length > 0;
}

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
  const old = async (kind: Throwable): Promise<string[]> =>
    (
      await tx.select({ id: TABLES[kind].id }).from(TABLES[kind]).where(lt(TABLES[kind].thrownAt, before))
    ).map((r) => r.id);
  const [oldBatches, oldTransfers] = [await old('batch'), await old('transfer')];
  await tx
    .delete(transfers)
    .where(or(inArray(transfers.id, oldTransfers), inArray(transfers.batchId, oldBatches)));
  await tx.delete(batchPairs).where(inArray(batchPairs.batchId, oldBatches));
  await tx.delete(batches).where(inArray(batches.id, oldBatches));
  await tx.delete(ticks).where(sql`${ticks.transferId} NOT IN (SELECT id FROM transfers)`);
  const looks = await tx
    .select({ id: snapshots.id })
    .from(snapshots)
    .where(
      and(
        lt(snapshots.thrownAt, before),
        sql`NOT EXISTS (SELECT 1 FROM transfers t WHERE ${snapshots.id} IN (t.source_snapshot, t.dest_snapshot, t.back_snapshot))`,
      ),
    );
  await tx.delete(snapshots).where(
    inArray(
      snapshots.id,
      looks.map((l) => l.id),
    ),
  );
  const gone = await tx
    .delete(packages)
    .where(
      and(
        lt(packages.thrownAt, before),
        sql`NOT EXISTS (SELECT 1 FROM transfers t WHERE ${packages.id} IN (t.package_id, t.arrived_package_id))`,
        sql`NOT EXISTS (SELECT 1 FROM snapshots s WHERE s.package_id = ${packages.id})`,
      ),
    )
    .returning({ readingId: packages.readingId });
  for (const { readingId } of gone) if (readingId) await removeReading(tx, readingId);
}
