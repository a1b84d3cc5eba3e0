import { randomUUID } from 'node:crypto';
import { desc, eq, isNull, lt } from 'drizzle-orm';
import { db, type Reading, type Transaction } from './database.ts';
import { batchPlanCodec, type BatchPlan } from './documents/batches.ts';
import { batches } from './schema.ts';
import { throwing } from './thrown.ts';

export interface Batch {
  readonly id: string;
  readonly title: string;
  readonly createdAt: number;
  readonly plan: BatchPlan;
}

export async function insertBatch(
  tx: Transaction,
  { title, plan }: Pick<Batch, 'title' | 'plan'>,
): Promise<string> {
  const id = randomUUID();
  await tx.insert(batches).values({ id, title, createdAt: Date.now(), plan: batchPlanCodec.write(plan) });
  return id;
}

export async function batchById(id: string, on: Reading = db): Promise<Batch | null> {
  const [row] = await on.select().from(batches).where(eq(batches.id, id));
  return row ? { ...row, plan: batchPlanCodec.read(row.plan) } : null;
}

export const listBatches = (limit = 100): Promise<Pick<Batch, 'id' | 'title' | 'createdAt'>[]> =>
  db
    .select({ id: batches.id, title: batches.title, createdAt: batches.createdAt })
    .from(batches)
    .where(isNull(batches.thrownAt))
    .orderBy(desc(batches.createdAt))
    .limit(limit);

/** Throws a batch away, or brings it back. @param at ms; null brings it back. @returns whether there is one */
export const setBatchThrown = throwing(batches);

/** Removes batches that were thrown away before a moment. @returns their ids */
export const purgeBatches = async (tx: Transaction, before: number): Promise<string[]> =>
  (await tx.delete(batches).where(lt(batches.thrownAt, before)).returning({ id: batches.id })).map(
    (b) => b.id,
  );
