import { speak, ticksOfKinds } from '@alforja/core';
import { readCourse } from '../library/courses.ts';
import { notify } from '../library/notices.ts';
import type { Handler, JobContext } from '../runner/handler.ts';
import { batchById } from '../store/batches.ts';
import { changePair, pairOfTransfer, pairsOf, type BatchPair } from '../store/batchPairs.ts';
import { write, type Transaction } from '../store/database.ts';
import type { BatchPlan } from '../store/documents/batches.ts';
import { announceSubject } from '../store/news.ts';
import { standingsOfBatch, transferById } from '../store/transfers.ts';
import { beginSending } from './begin.ts';
import { sourceOf } from './source.ts';
import { startTransfer } from './start.ts';

/** Works through the pairs of a batch: reads each source, makes the transfer, sets it going. */
export const batch: Handler = {
  waits: true,
  async run(id, context) {
    const held = await batchById(id);
    if (!held) return;
    const pairs = (await pairsOf(id)).filter((p) => p.state === 'waiting' || p.state === 'running');
    for (const [n, pair] of pairs.entries()) {
      context.signal.throwIfAborted();
      context.tell(`Starting course ${n + 1} of ${pairs.length}`, n, pairs.length);
      await beginPair(pair, held.plan, context);
    }
  },
  failed: (tx, id, failure) => stopPairs(tx, id, speak(failure).message),
  stopped: (tx, id) => stopPairs(tx, id),
};

/** Pairs whose turn has not come will not have it: their batch has stopped. */
export async function stopPairs(
  tx: Transaction,
  batchId: string,
  trouble = 'The batch was stopped by hand before this course was begun.',
): Promise<void> {
  const waiting = (await pairsOf(batchId, tx)).filter((p) => p.state === 'waiting');
  for (const pair of waiting) await changePair(tx, pair, { state: 'failed', trouble });
  if (waiting.length > 0 && (await allEnded(tx, batchId))) await announceDone(tx, batchId);
  await announceSubject(tx, batchId);
}

async function beginPair(pair: BatchPair, plan: BatchPlan, context: JobContext): Promise<void> {
  try {
    const had = pair.transferId === null ? null : await transferById(pair.transferId);
    if (had) {
      // It was begun before the process ended; its own job is taken up by itself.
      if (had.sending === null) await beginSending(had);
      return;
    }
    await startPair(pair, plan, context);
  } catch (error) {
    if (context.signal.aborted) throw error;
    await write(async (tx) => {
      await changePair(tx, pair, { state: 'failed', trouble: (error as Error).message });
      if (await allEnded(tx, pair.batchId)) await announceDone(tx, pair.batchId);
    });
  }
  await write((tx) => announceSubject(tx, pair.batchId));
}

async function startPair(pair: BatchPair, plan: BatchPlan, context: JobContext): Promise<void> {
  const taken = await readCourse(pair.sourceCourse, context, String(pair.at));
  const source = await sourceOf({ packageId: taken.packageId, sourceSnapshot: taken.id });
  const kinds = pair.exception?.kinds ?? plan.kinds;
  const id = await startTransfer({ courseId: pair.sourceCourse }, pair.destCourse, {
    ticks: ticksOfKinds(source!.tree, kinds),
    options: plan.options,
    batchId: pair.batchId,
    also: (tx, transferId) => changePair(tx, pair, { transferId, state: 'running' }),
  });
  if (id === null) throw new Error('The destination is no longer listed.');
  await beginSending((await transferById(id))!);
}

/**
 * Marks the pair of a batch whose transfer has ended.
 * @param trouble why it stopped; null where it arrived
 * @returns whether the batch tells of it; what ends again later tells of itself
 */
export async function settlePair(
  tx: Transaction,
  transferId: string,
  trouble: string | null,
): Promise<boolean> {
  await announceSubject(tx, transferId);
  const pair = await pairOfTransfer(transferId, tx);
  if (!pair) return false;
  // A course that is looked at or sent again later is no news of the whole batch.
  const first = pair.state === 'waiting' || pair.state === 'running';
  await changePair(tx, pair, { state: trouble === null ? 'done' : 'failed', trouble });
  if (first && (await allEnded(tx, pair.batchId))) await announceDone(tx, pair.batchId);
  return first;
}

/** Whether every course of a batch has ended; asked in the change that ends one, so that one alone is the last. */
const allEnded = async (tx: Transaction, batchId: string): Promise<boolean> =>
  (await pairsOf(batchId, tx)).every((p) => p.state !== 'waiting' && p.state !== 'running');

/** One notice for a whole batch, once its last course has ended: what arrived, and what of it differs. */
async function announceDone(tx: Transaction, batchId: string): Promise<void> {
  const held = await batchById(batchId, tx);
  const pairs = await pairsOf(batchId, tx);
  const of = (state: BatchPair['state']): number => pairs.filter((p) => p.state === state).length;
  if (!held) return;
  const failed = of('failed');
  const tallies = [...(await standingsOfBatch(batchId, tx)).values()].flatMap(({ tally }) => tally ?? []);
  const differing = tallies.filter((t) => t.open > 0);
  const open = differing.reduce((sum, t) => sum + t.open, 0);
  const arrived = of('done');
  const said = [
    `${arrived} ${arrived === 1 ? 'course has' : 'courses have'} arrived`,
    ...(arrived === 0
      ? []
      : [
          differing.length === 0
            ? 'nothing differs'
            : `${differing.length} of them with differences (${open} to decide)`,
        ]),
    ...(failed > 0 ? [`${failed} stopped`] : []),
  ];
  await notify(tx, {
    text: `“${held.title}”: ${said.join(', ')}.`,
    href: `/batches/${batchId}`,
    tone: failed > 0 ? 'bad' : open > 0 ? 'look' : 'good',
  });
}
