import { write, type Transaction } from '../store/database.ts';
import { pairsUnderWay } from '../store/batchPairs.ts';
import { latestJobs, queueJob, underWay } from '../store/jobs.ts';
import { packagesInReading } from '../store/packages.ts';
import { sendingsUnderWay, transferById } from '../store/transfers.ts';
import { settlePair, stopPairs } from './batch.ts';
import { markStopped, STOPPED_BY_HAND } from './send.ts';

/**
 * Takes up whatever is half said: a reading, a sending or a pair of a batch that is under way by its own row, and
 * that no job works on. Everything is written together with its job, so that there is none; an older version, or a
 * part of the database brought back by hand, may have left some.
 */
export const takeUp = (): Promise<void> =>
  write(async (tx) => {
    await readings(tx);
    await sendings(tx);
    await pairs(tx);
  });

async function readings(tx: Transaction): Promise<void> {
  // What came with a look into a course is read by the job that looked, while there is one.
  const looking = await underWay(tx, ['snapshot', 'send', 'plan', 'batch']);
  for (const { id, cameBy } of await packagesInReading(tx))
    if (cameBy !== 'course' || !looking) await queueJob(tx, 'read', id, { background: true });
}

async function sendings(tx: Transaction): Promise<void> {
  for (const { id, destCourse } of await sendingsUnderWay(tx)) {
    if (await underWay(tx, 'send', id)) continue;
    if ((await latestJobs(id, tx)).send?.state === 'cancelled') await markStopped(tx, id, STOPPED_BY_HAND);
    else await queueJob(tx, 'send', id, { turn: destCourse });
  }
}

async function pairs(tx: Transaction): Promise<void> {
  for (const pair of await pairsUnderWay(tx)) {
    const sending = pair.transferId && (await transferById(pair.transferId, tx))?.sending;
    if (sending) {
      if (sending.endedAt !== null) await settlePair(tx, pair.transferId!, sending.failure?.detail ?? null);
    } else if ((await latestJobs(pair.batchId, tx)).batch?.state === 'cancelled')
      await stopPairs(tx, pair.batchId);
    else await queueJob(tx, 'batch', pair.batchId);
  }
}
