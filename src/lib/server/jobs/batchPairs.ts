import { eq } from 'drizzle-orm';
import { db, write } from '../db/client.ts';
import { batches, batchPairs } from '../db/schema.ts';
import { notify } from '../services/notices.ts';
import { announceSubject } from './events.ts';

/** Marks the pair of a batch whose transfer has ended. @param trouble why it stopped; null where it arrived */
export async function settlePair(transferId: string, trouble: string | null): Promise<void> {
  await write((tx) =>
    tx
      .update(batchPairs)
      .set({ state: trouble === null ? 'done' : 'failed', trouble })
      .where(eq(batchPairs.transferId, transferId)),
  );
  announceSubject(transferId);
  await tellWhenDone(transferId);
}

/** One notice for a whole batch, once its last course has ended. */
async function tellWhenDone(transferId: string): Promise<void> {
  const [mine] = await db.select().from(batchPairs).where(eq(batchPairs.transferId, transferId));
  if (!mine) return;
  const [batch] = await db.select().from(batches).where(eq(batches.id, mine.batchId));
  const pairs = await db.select().from(batchPairs).where(eq(batchPairs.batchId, mine.batchId));
  const of = (state: string): number => pairs.filter((p) => p.state === state).length;
  if (!batch || of('waiting') + of('running') > 0) return;
  const failed = of('failed');
  await notify({
    text: `“${batch.title}”: ${of('done')} courses have arrived${failed > 0 ? `, ${failed} stopped` : ''}.`,
    href: `/batches/${batch.id}`,
    tone: failed > 0 ? 'bad' : 'good',
  });
}
