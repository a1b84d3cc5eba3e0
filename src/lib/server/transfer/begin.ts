import { onCommit, write } from '../store/database.ts';
import { queueJob, underWay } from '../store/jobs.ts';
import { announceSubject } from '../store/news.ts';
import { changeTransfer, type Transfer } from '../store/transfers.ts';
import { whoDecides } from './decisions.ts';
import { keptOf, newSending, type SendingOrder } from './sending.ts';

/**
 * Sends, goes on, sends again, or only checks.
 * @returns false where that is under way already
 */
export async function beginSending(
  transfer: Pick<Transfer, 'id' | 'destCourse' | 'sourceCourse'>,
  order: Omit<SendingOrder, 'by'> = {},
): Promise<boolean> {
  const by = await whoDecides(transfer);
  return write(async (tx) => {
    if (await underWay(tx, 'send', transfer.id)) return false;
    await changeTransfer(tx, transfer.id, (before) => ({
      sending: newSending(before, { ...order, by }),
      record: order.checkOnly ? before.record : [...before.record, ...keptOf(before)],
    }));
    await queueJob(tx, 'send', transfer.id);
    onCommit(tx, () => announceSubject(transfer.id));
    return true;
  });
}

/** Takes out again what a transfer brought into a course. @returns false while it is being sent */
export const beginUndo = (id: string): Promise<boolean> =>
  write(async (tx) => {
    if (await underWay(tx, 'send', id)) return false;
    await queueJob(tx, 'undo', id);
    return true;
  });
