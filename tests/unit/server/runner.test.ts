import { randomUUID } from 'node:crypto';
import { expect } from 'chai';
import { finding } from '@alforja/core';
import { JobFailure, type Handler } from '../../../src/lib/server/runner/handler.ts';
import { Runner, type Handlers } from '../../../src/lib/server/runner/runner.ts';
import { write } from '../../../src/lib/server/store/database.ts';
import { openStore } from '../../../src/lib/server/store/open.ts';
import { latestJobs, queueJob, queueJobAnew } from '../../../src/lib/server/store/jobs.ts';
import { announceSubject, live, type NewsItem } from '../../../src/lib/server/store/news.ts';
import { JOB_KINDS, type JobKind } from '../../../src/lib/shared/types.ts';
import { settled, until } from '../../support/server.ts';

const idle: Handler = { run: async () => undefined };
const handlers = (over: Partial<Handlers>): Handlers => ({
  ...(Object.fromEntries(JOB_KINDS.map((k) => [k, idle])) as Record<JobKind, Handler>),
  ...over,
});
const queue = async (kind: JobKind, subject: string, over = {}): Promise<string> =>
  (await write((tx) => queueJob(tx, kind, subject, over)))!;
const stateOf = async (kind: JobKind, subject: string): Promise<string | undefined> =>
  (await latestJobs(subject))[kind]?.state;

describe('the runner', () => {
  before(openStore);
  const running: Runner[] = [];
  const started = async (over: Partial<Handlers>): Promise<Runner> => {
    const runner = new Runner(handlers(over));
    running.push(runner);
    await runner.start();
    return runner;
  };
  afterEach(async () => {
    await settled();
    for (const runner of running.splice(0)) await runner.stop();
  });

  it('runs what is queued by the handler of its kind, and says when it is done', async () => {
    const ran: string[] = [];
    const heard: NewsItem[] = [];
    const stop = live.listen((n) => heard.push(n));
    await until('the news to be heard', async () => {
      await write((tx) => announceSubject(tx, 'x'));
      return heard.length > 0;
    });
    await started({ undo: { run: async (subject) => void ran.push(subject) } });
    const subject = randomUUID();
    const id = await queue('undo', subject);
    await settled();
    expect(ran).to.deep.equal([subject]);
    const states = (): (string | undefined)[] =>
      heard.filter((n) => n.job?.id === id).map((n) => n.job!.state);
    await until('the news of its end', () => states().includes('done'));
    stop();
    expect(states()).to.deep.equal(['running', 'done']);
  });

  it('takes what nobody waits for last', async () => {
    const ran: string[] = [];
    const [late, first] = [randomUUID(), randomUUID()];
    await queue('plan', late, { background: true });
    await queue('plan', first);
    // One after the other: a handler that is entered says so before the next begins.
    await started({ plan: { run: async (subject) => void ran.push(subject) } });
    await settled();
    expect(ran).to.deep.equal([first, late]);
  });

  it('keeps why a job failed, and tells its handler', async () => {
    const told: string[] = [];
    const failing: Handler = {
      run: () => Promise.reject(new JobFailure(finding('file-empty', 'error', {}))),
      failed: async (_, subject, { code }) => void told.push(`${subject} ${code}`),
    };
    await started({ undo: failing });
    const subject = randomUUID();
    await queue('undo', subject);
    await settled();
    expect(told).to.deep.equal([`${subject} file-empty`]);
    const { undo } = await latestJobs(subject);
    expect([undo!.state, undo!.failure!.message]).to.deep.equal(['failed', 'The file is empty (0 bytes).']);
  });

  it('says in words what went wrong unforeseen', async () => {
    await started({ undo: { run: () => Promise.reject(new Error('a wheel fell off')) } });
    const subject = randomUUID();
    await queue('undo', subject);
    await settled();
    expect((await latestJobs(subject)).undo!.failure!.message).to.contain('a wheel fell off');
  });

  it('stops a job that runs, and one that waits', async () => {
    const stopped: string[] = [];
    let entered = false;
    const waiting: Handler = {
      waits: true,
      run: (_, { signal }) => {
        entered = true;
        return new Promise((_, fail) => signal.addEventListener('abort', () => fail(new Error('aborted'))));
      },
      stopped: async (_, subject) => void stopped.push(subject),
    };
    const runner = await started({ send: waiting });
    const subject = randomUUID();
    const id = await queue('send', subject);
    await until('the job to begin', () => entered);
    await runner.cancel(id);
    expect(await stateOf('send', subject)).to.equal('cancelled');
    expect(stopped).to.deep.equal([subject]);
    await until('the runner to rest', () => runner.idle);
    // Cancelling what has ended changes nothing.
    await runner.cancel(id);
    expect(stopped.length).to.equal(1);
  });

  it('lets computing and waiting work side by side', async () => {
    let release = (): void => undefined;
    const blocked: Handler = { waits: true, run: () => new Promise((done) => (release = done)) };
    const ran: string[] = [];
    await started({ send: blocked, plan: { run: async (s) => void ran.push(s) } });
    const subject = randomUUID();
    await queue('send', randomUUID());
    await queue('plan', subject);
    await until('the planning', () => ran.includes(subject));
    release();
  });

  it('writes down how a job ended and what comes of it in one change', async () => {
    const subject = randomUUID();
    let tries = 0;
    const runner = await started({
      undo: {
        run: async () => async (tx) => {
          await queueJob(tx, 'plan', subject);
          if (++tries === 1) throw new Error('the disk is full');
        },
      },
    });
    await queue('undo', subject);
    await until('the first try', () => tries === 1);
    await until('the runner to rest', () => runner.idle);
    // Neither is there; the job is tried again.
    await until('the second try', () => tries === 2);
    await settled();
    expect([await stateOf('undo', subject), await stateOf('plan', subject)]).to.deep.equal(['done', 'done']);
  });

  it('refuses what a job writes that was stopped meanwhile', async () => {
    let refused = '';
    const subject = randomUUID();
    let goOn = (): void => undefined;
    const paused = new Promise<void>((resolve) => (goOn = resolve));
    const runner = await started({
      send: {
        waits: true,
        run: async () => {
          await paused;
          await write((tx) => queueJob(tx, 'plan', subject)).catch(
            (e: Error) => (refused = e.constructor.name),
          );
        },
      },
    });
    const id = await queue('send', subject);
    await until('the job to begin', async () => (await stateOf('send', subject)) === 'running');
    await runner.cancel(id);
    goOn();
    await until('the write to be refused', () => refused !== '');
    expect(refused).to.equal('NoLongerOurs');
    expect(await stateOf('plan', subject)).to.equal(undefined);
  });

  it('runs a job once more that was asked for anew while it ran', async () => {
    const subject = randomUUID();
    let runs = 0;
    await started({
      read: {
        run: async () => {
          if (++runs === 1) await write((tx) => queueJobAnew(tx, 'read', subject));
        },
      },
    });
    await queue('read', subject);
    await until('both runs', () => runs === 2);
    await settled();
    expect(runs).to.equal(2);
  });

  it('runs jobs of one turn one after the other, in their order, also after one that failed', async () => {
    const log: string[] = [];
    const names = new Map<string, string>();
    await started({
      send: {
        waits: true,
        run: async (subject) => {
          const name = names.get(subject)!;
          log.push(`${name} begins`);
          await new Promise((done) => setTimeout(done, 30));
          log.push(`${name} ends`);
          if (name === 'a') throw new Error(name);
        },
      },
    });
    for (const [name, turn] of [
      ['a', 'course'],
      ['b', 'course'],
      ['c', 'other'],
    ] as const) {
      const subject = randomUUID();
      names.set(subject, name);
      await queue('send', subject, { turn });
    }
    await settled();
    const ofCourse = log.filter((l) => !l.startsWith('c'));
    expect(ofCourse).to.deep.equal(['a begins', 'a ends', 'b begins', 'b ends']);
    expect(log.indexOf('c begins')).to.be.below(log.indexOf('a ends'));
  });
});
