import { expect } from 'chai';
import { requestSnapshot } from '../../../src/lib/server/library/courses.ts';
import { connect, disconnect } from '../../../src/lib/server/library/systems.ts';
import { beginSending } from '../../../src/lib/server/transfer/begin.ts';
import { startTransfer } from '../../../src/lib/server/transfer/start.ts';
import { latestSnapshot } from '../../../src/lib/server/store/snapshots.ts';
import { transferById, type Transfer } from '../../../src/lib/server/store/transfers.ts';
import { quayside } from '../../../standins/data.ts';
import { CourseSystem } from '../../../standins/system.ts';
import type { Course } from '../../../standins/types.ts';
import { closeServer, openServer, settled, until } from '../../support/server.ts';

describe('a course system that loses its mind', () => {
  let system: CourseSystem;
  let systemId: string;
  const programme = { pairs: 3, items: 12 };
  const course = (classId: string): string => `${systemId}:${classId}`;
  const transfer = async (id: string): Promise<Transfer> => (await transferById(id))!;

  before(async () => {
    await openServer();
    system = await new CourseSystem(await quayside({ port: 0, folder: null, programme })).start();
    systemId = await connect(system.address, 'demo-coordinator');
    await settled();
  });
  after(async () => {
    await disconnect(systemId);
    await system.stop();
    await closeServer();
  });

  async function started(pair: number): Promise<string> {
    for (const end of ['old', 'new']) await requestSnapshot(course(`p${pair}-${end}`));
    await settled();
    const { outline } = (await latestSnapshot(course(`p${pair}-old`)))!;
    const ticks = outline.things.map((t) => ({ kind: t.kind, nodeId: t.id }));
    return (await startTransfer({ courseId: course(`p${pair}-old`) }, course(`p${pair}-new`), { ticks }))!;
  }
  /** Sends until the destination has been asked to import, and stops the world there. */
  async function importing(id: string): Promise<void> {
    expect(await beginSending(await transfer(id))).to.equal(true);
    await until(
      'the import to be opened',
      async () => ((await transfer(id)).sending?.imports.length ?? 0) > 0,
    );
  }

  it('ends in words when it forgot what it was asked for, and can be gone on from', async () => {
    const id = await started(0);
    system.setHabit('slow', true);
    await importing(id);
    system.jobs.forget();
    await settled();
    system.setHabit('slow', false);
    const stopped = (await transfer(id)).sending!;
    expect(stopped.failure?.detail).to.match(/no longer knows what it was asked to do/u);
    expect(await beginSending(await transfer(id))).to.equal(true);
    await settled();
    const done = await transfer(id);
    expect([done.sending!.failure, done.sending!.endedAt === null]).to.deep.equal([null, false]);
    expect(done.sending!.notes.join(' ')).to.match(/no longer knows of an earlier import/u);
    expect(done.arrival!.comparison.counts.missing).to.equal(0);
  });

  it('ends in words when its database is gone, and can be gone on from once that is back', async () => {
    const id = await started(1);
    const courses = new Map<string, Course>(system.courses);
    for (const end of ['old', 'new']) system.courses.delete(`p1-${end}`);
    expect(await beginSending(await transfer(id))).to.equal(true);
    await settled();
    expect((await transfer(id)).sending!.failure?.detail).to.match(/Quayside/u);
    for (const [key, held] of courses) system.courses.set(key, held);
    expect(await beginSending(await transfer(id))).to.equal(true);
    await settled();
    expect((await transfer(id)).arrival!.comparison.counts.missing).to.equal(0);
  });

  it('that goes away while it is asked is waited for no longer than said, and gone on from', async () => {
    const id = await started(2);
    await importing(id);
    const port = Number(new URL(system.address).port);
    await system.stop();
    await settled();
    expect((await transfer(id)).sending!.failure?.detail).to.match(/Quayside/u);
    // It comes back as it was set up: with none of what it was asked for.
    system = await new CourseSystem(await quayside({ port, folder: null, programme })).start();
    expect(await beginSending(await transfer(id))).to.equal(true);
    await settled();
    const { sending, arrival } = await transfer(id);
    expect([sending!.failure, arrival!.comparison.counts.missing]).to.deep.equal([null, 0]);
  }).timeout(120_000);
});
