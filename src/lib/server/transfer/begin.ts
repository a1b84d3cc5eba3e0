import { write } from '../store/database.ts';
import { queueJob, underWay } from '../store/jobs.ts';
import { announceSubject } from '../store/news.ts';
import { changeTransfer, transferById, type Transfer } from '../store/transfers.ts';
import { whoDecides } from './decisions.ts';
import { keptOf, newSending, type SendingOrder } from './sending.ts';

/**
 * Sends, goes on, sends again, or only checks. Sendings into one course go one after the other: the later one sees
 * what the earlier one has landed.
 * @returns false where that is under way already
 */
export async function beginSending(
  transfer: Pick<Transfer, 'id' | 'destCourse' | 'sourceCourse'>,
  order: Omit<SendingOrder, 'by'> = {},
): Promise<boolean> {
  const by = await whoDecides(transfer);
  return write(async (tx) => {
    if (await underWay(tx, ['send', 'undo'], transfer.id)) return false;
    await changeTransfer(tx, transfer.id, (before) => ({
      sending: newSending(before, { ...order, by }),
      record: order.checkOnly ? before.record : [...before.record, ...keptOf(before)],
    }));
    await queueJob(tx, 'send', transfer.id, { turn: transfer.destCourse });
    await announceSubject(tx, transfer.id);
    return true;
  });
}

/** Takes out again what a transfer brought into a course. @returns false while it is being sent */
export const beginUndo = (id: string): Promise<boolean> =>
  write(async (tx) => {
    const transfer = await transferById(id, tx);
    if (!transfer || (await underWay(tx, ['send', 'undo'], id))) return false;
    await queueJob(tx, 'undo', id, { turn: transfer.destCourse });
    return true;
  });
