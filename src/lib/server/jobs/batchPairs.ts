import { eq } from 'drizzle-orm';
import { write } from '../db/client.ts';
import { batchPairs } from '../db/schema.ts';
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
}
