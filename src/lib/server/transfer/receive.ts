import { write } from '../store/database.ts';
import { packageFile } from '../store/packages.ts';
import { queueJobAnew, underWay } from '../store/jobs.ts';
import { announceSubject } from '../store/news.ts';
import { changeTransfer, transferById } from '../store/transfers.ts';
import { whoDecides } from './decisions.ts';
import { newSending } from './sending.ts';

/** Why a file cannot be taken as what arrived. */
export type ReceiveRefusal = 'unknown' | 'course' | 'being-written';

/**
 * Takes a package as what came back of a transfer into a file, and has it compared. Where another was dropped
 * before and is being compared, this one takes its place.
 * @returns why not; null when it is taken
 */
export async function receive(id: string, packageId: string): Promise<ReceiveRefusal | null> {
  const transfer = await transferById(id);
  if (!transfer || !(await packageFile(packageId))) return 'unknown';
  if (transfer.destCourse !== null) return 'course';
  const by = await whoDecides(transfer);
  return write(async (tx) => {
    const now = (await transferById(id, tx))!;
    const writing = now.sending?.endedAt === null && !now.sending.steps.some((s) => s.name === 'compare');
    if (writing && (await underWay(tx, 'send', id))) return 'being-written';
    await changeTransfer(tx, id, (before) => ({
      arrivedPackageId: packageId,
      arrival: null,
      seamId: null,
      tally: null,
      comparedAt: null,
      sending: newSending(before, { by, checkOnly: true }),
    }));
    await queueJobAnew(tx, 'send', id);
    await announceSubject(tx, id);
    return null;
  });
}
