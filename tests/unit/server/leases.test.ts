import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import type { Handler } from '../../../src/lib/server/runner/handler.ts';
import { LeaseWatch } from '../../../src/lib/server/runner/leases.ts';
import { MAX_ATTEMPTS, Runner, type Handlers } from '../../../src/lib/server/runner/runner.ts';
import { db, write } from '../../../src/lib/server/store/database.ts';
import { claimJob, endJob, jobById, queueJob } from '../../../src/lib/server/store/jobs.ts';
import { openStore } from '../../../src/lib/server/store/open.ts';
import { dropLease, renewLease, takeLease } from '../../../src/lib/server/store/processes.ts';
import { jobs, processes } from '../../../src/lib/server/store/schema.ts';
import { JOB_KINDS, type JobKind } from '../../../src/lib/shared/types.ts';
import { settled, until } from '../../support/server.ts';

const handlers = (undo: Handler): Handlers => ({
  ...(Object.fromEntries(JOB_KINDS.map((k) => [k, { run: async () => undefined }])) as unknown as Record<
    JobKind,
    Handler
  >),
  undo,
});
const queued = async (subject: string = randomUUID()): Promise<string> =>
  (await write((tx) => queueJob(tx, 'undo', subject)))!;
/** A process on another machine that has taken a job. */
async function elsewhere(job: string, attempts = 1): Promise<string> {
  const id = randomUUID();
  await write(async (tx) => {
    await takeLease(tx, id);
    await tx.update(processes).set({ host: 'elsewhere' }).where(eq(processes.id, id));
    await tx.update(jobs).set({ state: 'running', owner: id, attempts }).where(eq(jobs.id, job));
  });
  return id;
}

describe('leases', () => {
  before(openStore);
  const running: Runner[] = [];
  const started = async (
    undo: Handler,
    ...more: [ConstructorParameters<typeof Runner>[1]?]
  ): Promise<Runner> => {
    const runner = new Runner(handlers(undo), ...more);
    running.push(runner);
    await runner.start();
    return runner;
  };
  afterEach(async () => {
    for (const runner of running.splice(0)) await runner.stop();
    await write((tx) => tx.delete(processes));
    await write((tx) => tx.delete(jobs));
  });

  it('let one of many who claim a job have it', async () => {
    const id = await queued();
    const won = await Promise.all(
      Array.from({ length: 8 }, () => write((tx) => claimJob(tx, id, randomUUID()))),
    );
    expect(won.filter(Boolean).length).to.equal(1);
    expect(await write((tx) => endJob(tx, id, 'nobody', 'done')), 'ended by another').to.equal(false);
  });

  it('lapse when they are not renewed for their length, whatever the clocks say', async () => {
    const id = await elsewhere(await queued());
    const watch = new LeaseWatch(80);
    const lapsed = async (): Promise<boolean> => (await watch.lapsed()).some((p) => p.id === id);
    const { now } = Date;
    try {
      expect(await lapsed()).to.equal(false);
      // A clock that jumps forward by a day makes nobody lapse, one that jumps back keeps nobody alive.
      Date.now = () => now() + 86_400_000;
      expect(await lapsed()).to.equal(false);
      await wait(60);
      await write((tx) => renewLease(tx, id));
      await wait(60);
      expect(await lapsed()).to.equal(false);
      Date.now = () => now() - 86_400_000;
      await wait(120);
      expect(await lapsed()).to.equal(true);
    } finally {
      Date.now = now;
    }
  });

  it('of a process that is gone from this machine end at once', async () => {
    const id = await elsewhere(await queued());
    const { host } = (await db.select().from(processes)).find((p) => p.id === id)!;
    expect(host).to.equal('elsewhere');
    await write((tx) => takeLease(tx, 'mine'));
    const mine = (await db.select().from(processes)).find((p) => p.id === 'mine')!;
    // A number that no process has.
    await write((tx) =>
      tx
        .update(processes)
        .set({ host: mine.host, pid: 2 ** 22 + 1 })
        .where(eq(processes.id, id)),
    );
    expect((await new LeaseWatch().lapsed()).map((p) => p.id)).to.include(id);
  });

  it('keep a job from others as long as they are renewed', async () => {
    const id = await queued();
    await elsewhere(id);
    const ran: string[] = [];
    await started({ run: async (subject) => void ran.push(subject) });
    await wait(1300);
    expect(ran).to.deep.equal([]);
    expect((await jobById(id))!.state).to.equal('running');
  });

  it('that are gone leave their jobs to others, with what was counted', async () => {
    const id = await queued();
    const other = await elsewhere(id);
    await write((tx) => dropLease(tx, other));
    await started({ run: async () => undefined });
    await settled();
    const job = (await jobById(id))!;
    expect([job.state, job.attempts, job.owner]).to.deep.equal(['done', 2, null]);
  });

  it('that end too often have the job fail in words, its handler told, and somebody else too', async () => {
    const subject = randomUUID();
    const id = await queued(subject);
    const other = await elsewhere(id, MAX_ATTEMPTS);
    await write((tx) => dropLease(tx, other));
    const told: string[] = [];
    await started(
      {
        run: async () => void told.push('ran'),
        failed: async (_, of, { code }) => void told.push(`${of} ${code}`),
      },
      async (_, job, why) => void told.push(`${job.kind} ${why.code}`),
    );
    expect(told).to.deep.equal([`${subject} job-interrupted`, 'undo job-interrupted']);
    expect((await jobById(id))!.state).to.equal('failed');
  });

  it('that others took over are not written under any more', async () => {
    const subject = randomUUID();
    const came: string[] = [];
    let goOn = (): void => undefined;
    const paused = new Promise<void>((resolve) => (goOn = resolve));
    const undo: Handler = {
      run: async (_, { signal }) => {
        came.push('begins');
        if (came.length > 1) return undefined;
        await paused;
        await write((tx) => queueJob(tx, 'plan', subject)).catch(() => came.push('refused'));
        came.push(signal.aborted ? 'broken off' : 'not yet broken off');
        return undefined;
      },
    };
    await started(undo);
    const id = await queued(subject);
    await until('the job to begin', () => came.length === 1);
    // What another process does that takes this one for gone.
    await write(async (tx) => {
      await tx.delete(processes);
      await tx.update(jobs).set({ state: 'queued', owner: null }).where(eq(jobs.id, id));
    });
    await until('the second run', () => came.length === 2);
    goOn();
    await until('the first to end', () => came.length === 4);
    await settled();
    expect(came).to.deep.equal(['begins', 'begins', 'refused', 'broken off']);
    expect((await jobById(id))!.attempts).to.equal(2);
  });

  it('are given back by a process that is told to end, with what it does not finish', async () => {
    const quick = await queued();
    const endless = randomUUID();
    let begun = 0;
    const runner = await started({
      run: (subject, { signal }) => {
        begun += 1;
        return new Promise((done) => {
          signal.addEventListener('abort', () => done());
          if (subject !== endless) setTimeout(done, 100);
        });
      },
    });
    await until('the first to begin', () => begun === 1);
    const long = await queued(endless);
    await until('the second to begin', () => begun === 2);
    const later = runner.stop(400);
    const left = await queued();
    await later;
    const states = await Promise.all([quick, long, left].map(async (id) => (await jobById(id))!));
    expect(states.map((j) => [j.state, j.attempts, j.owner])).to.deep.equal([
      ['done', 1, null],
      ['queued', 0, null],
      ['queued', 0, null],
    ]);
    expect(await db.select().from(processes)).to.deep.equal([]);
  });
});
