import { randomUUID } from 'node:crypto';
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { insertBatch } from '../../../src/lib/server/store/batches.ts';
import { changePair, insertPairs, pairsOf } from '../../../src/lib/server/store/batchPairs.ts';
import { db, write } from '../../../src/lib/server/store/database.ts';
import { storeBytes } from '../../../src/lib/server/store/files.ts';
import { endJob, latestJobs, queueJob } from '../../../src/lib/server/store/jobs.ts';
import { listNotices } from '../../../src/lib/server/store/notices.ts';
import { openStore } from '../../../src/lib/server/store/open.ts';
import { keepPackage } from '../../../src/lib/server/store/packages.ts';
import { jobs, packages, transfers } from '../../../src/lib/server/store/schema.ts';
import { changeTransfer, insertTransfer, transferById } from '../../../src/lib/server/store/transfers.ts';
import { newSending } from '../../../src/lib/server/transfer/sending.ts';
import { takeUp } from '../../../src/lib/server/transfer/takeUp.ts';
import { DEFAULT_OPTIONS } from '../../../src/lib/shared/transfers.ts';

describe('what is half said when the application starts', () => {
  before(openStore);
  // None of it is worked on here: what is looked at is what is queued.
  afterEach(() => write((tx) => tx.delete(jobs)));
  const kindsFor = async (subject: string): Promise<string[]> =>
    (await db.select().from(jobs).where(eq(jobs.subject, subject))).map((j) => `${j.kind} ${j.state}`);

  async function packageOf(text: string, cameBy: 'file' | 'course' = 'file'): Promise<string> {
    const stored = await storeBytes(new TextEncoder().encode(`${text} ${randomUUID()}`));
    return write(async (tx) => (await keepPackage(tx, { name: 'x.xml', ...stored, cameBy })).package.id);
  }
  async function sendingTransfer(batchId: string | null = null): Promise<string> {
    const packageId = await packageOf('source');
    return write(async (tx) => {
      await tx.update(packages).set({ state: 'failed' }).where(eq(packages.id, packageId));
      const id = await insertTransfer(tx, {
        title: 'Half said',
        packageId,
        target: 'qti2.1',
        destCourse: 's:c',
        options: DEFAULT_OPTIONS,
        batchId,
      });
      await changeTransfer(tx, id, (before) => ({ sending: newSending(before, { by: 'Odile' }) }));
      return id;
    });
  }

  it('a package that nobody reads is read, once', async () => {
    const id = await packageOf('nobody');
    await takeUp();
    await takeUp();
    expect(await kindsFor(id)).to.deep.equal(['read queued']);
  });

  it('a package of a course is left to the look that brought it, while that is under way', async () => {
    const id = await packageOf('looked', 'course');
    const look = (await write((tx) => queueJob(tx, 'snapshot', 's:c')))!;
    await takeUp();
    expect(await kindsFor(id)).to.deep.equal([]);
    await write((tx) => endJob(tx, look, null, 'cancelled'));
    await takeUp();
    expect(await kindsFor(id)).to.deep.equal(['read queued']);
  });

  it('a sending without a job goes on in its turn; one that somebody stopped has stopped', async () => {
    const [left, stopped] = [await sendingTransfer(), await sendingTransfer()];
    const job = (await write((tx) => queueJob(tx, 'send', stopped)))!;
    await write((tx) => endJob(tx, job, null, 'cancelled'));
    await takeUp();
    expect(await kindsFor(left)).to.deep.equal(['send queued']);
    expect((await db.select().from(jobs).where(eq(jobs.subject, left)))[0]!.turn).to.equal('s:c');
    expect(await kindsFor(stopped)).to.deep.equal(['send cancelled']);
    expect((await transferById(stopped))!.sending!.failure?.reason).to.equal('stopped');
    await write((tx) => tx.delete(transfers).where(eq(transfers.id, left)));
  });

  it('pairs of a batch that were not begun are begun; those that have ended are settled, and told once', async () => {
    const batchOf = (title: string): Promise<string> =>
      write(async (tx) => {
        const id = await insertBatch(tx, {
          title,
          plan: { kinds: ['quiz'], options: DEFAULT_OPTIONS },
        });
        await insertPairs(tx, id, [{ source: 's:a', dest: 's:b', exception: null }]);
        return id;
      });
    const [waiting, over] = [await batchOf('Not begun'), await batchOf('Over')];
    const transfer = await sendingTransfer(over);
    await write(async (tx) => {
      await changeTransfer(tx, transfer, ({ sending }) => ({ sending: { ...sending!, endedAt: 1 } }));
      await changePair(tx, (await pairsOf(over, tx))[0]!, { state: 'running', transferId: transfer });
    });
    await takeUp();
    await takeUp();
    expect(await kindsFor(waiting)).to.deep.equal(['batch queued']);
    expect(await kindsFor(over)).to.deep.equal([]);
    expect((await pairsOf(over))[0]!.state).to.equal('done');
    expect((await listNotices()).filter((n) => n.href === `/batches/${over}`).length).to.equal(1);
    // A batch that was stopped is not begun by itself again.
    await write(async (tx) => endJob(tx, (await latestJobs(waiting, tx)).batch!.id, null, 'cancelled'));
    await takeUp();
    expect(await kindsFor(waiting)).to.deep.equal(['batch cancelled']);
    expect((await pairsOf(waiting))[0]!.trouble).to.match(/stopped by hand before this course was begun/u);
  });
});
