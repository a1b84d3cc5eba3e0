import { and, asc, eq, inArray } from 'drizzle-orm';
import { db, type Reading, type Transaction } from './database.ts';
import { exceptionCodec, type PairException } from './documents/batches.ts';
import { batchPairs } from './schema.ts';

type Row = typeof batchPairs.$inferSelect;

/** Two courses of a batch. */
export interface BatchPair extends Omit<Row, 'exception'> {
  readonly exception: PairException | null;
}

const read = (row: Row): BatchPair => ({ ...row, exception: exceptionCodec.readOptional(row.exception) });

export async function insertPairs(
  tx: Transaction,
  batchId: string,
  pairs: readonly {
    readonly source: string;
    readonly dest: string;
    readonly exception: PairException | null;
  }[],
): Promise<void> {
  for (const [at, { source, dest, exception }] of pairs.entries())
    await tx.insert(batchPairs).values({
      batchId,
      at,
      sourceCourse: source,
      destCourse: dest,
      exception: exception && exceptionCodec.write(exception),
      transferId: null,
      state: exception?.kinds.length === 0 ? 'left' : 'waiting',
      trouble: null,
    });
}

export async function pairsOf(batchId: string, on: Reading = db): Promise<BatchPair[]> {
  const rows = await on
    .select()
    .from(batchPairs)
    .where(eq(batchPairs.batchId, batchId))
    .orderBy(asc(batchPairs.at));
  return rows.map(read);
}

/** Pairs of batches, thrown away or not, that have not ended. */
export async function pairsUnderWay(on: Reading): Promise<BatchPair[]> {
  const rows = await on
    .select()
    .from(batchPairs)
    .where(inArray(batchPairs.state, ['waiting', 'running']));
  return rows.map(read);
}

export async function pairOfTransfer(transferId: string, on: Reading = db): Promise<BatchPair | null> {
  const [row] = await on.select().from(batchPairs).where(eq(batchPairs.transferId, transferId));
  return row ? read(row) : null;
}

export const changePair = (
  tx: Transaction,
  { batchId, at }: Pick<BatchPair, 'batchId' | 'at'>,
  change: Partial<Pick<BatchPair, 'transferId' | 'state' | 'trouble'>>,
): Promise<unknown> =>
  tx
    .update(batchPairs)
    .set(change)
    .where(and(eq(batchPairs.batchId, batchId), eq(batchPairs.at, at)));

export const removePairs = (tx: Transaction, batches: readonly string[]): Promise<unknown> =>
  tx.delete(batchPairs).where(inArray(batchPairs.batchId, [...batches]));
