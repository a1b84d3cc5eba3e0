import { and, eq, sql } from 'drizzle-orm';
import { tickId, type NodeKind, type Tick } from '@alforja/core';
import { db, type Reading, type Transaction } from './database.ts';
import { ticks, transfers } from './schema.ts';

/** SQLite takes so many values in one statement. */
const BATCH = 500;

export const ticksOf = (transferId: string, on: Reading = db): Promise<Tick[]> =>
  on.select({ kind: ticks.kind, nodeId: ticks.nodeId }).from(ticks).where(eq(ticks.transferId, transferId));

/** Whether two choices are the same, in whatever order. */
export function sameTicks(a: readonly Tick[], b: readonly Tick[]): boolean {
  const ids = (list: readonly Tick[]): string => list.map(tickId).sort().join('\n');
  return ids(a) === ids(b);
}

/** Sets the ticks of a transfer to exactly these. */
export async function setTicks(tx: Transaction, transferId: string, given: readonly Tick[]): Promise<void> {
  const distinct = [...new Map(given.map((t) => [tickId(t), t])).values()];
  await tx.delete(ticks).where(eq(ticks.transferId, transferId));
  for (let at = 0; at < distinct.length; at += BATCH)
    await tx.insert(ticks).values(distinct.slice(at, at + BATCH).map((t) => ({ ...t, transferId })));
}

/** Where a thing of a package was ticked, what took its place is ticked with it. */
export async function tickWith(
  tx: Transaction,
  packageId: string,
  { kind, id, to }: { readonly kind: NodeKind; readonly id: string; readonly to: readonly string[] },
): Promise<void> {
  const ticked = await tx
    .select({ transferId: ticks.transferId })
    .from(ticks)
    .innerJoin(transfers, eq(transfers.id, ticks.transferId))
    .where(and(eq(transfers.packageId, packageId), eq(ticks.kind, kind), eq(ticks.nodeId, id)));
  const rows = ticked.flatMap(({ transferId }) => to.map((nodeId) => ({ transferId, kind, nodeId })));
  for (let at = 0; at < rows.length; at += BATCH)
    await tx
      .insert(ticks)
      .values(rows.slice(at, at + BATCH))
      .onConflictDoNothing();
}

/** Removes the ticks of transfers that are gone. */
export const removeStrayTicks = (tx: Transaction): Promise<unknown> =>
  tx.delete(ticks).where(sql`${ticks.transferId} NOT IN (SELECT id FROM transfers)`);
