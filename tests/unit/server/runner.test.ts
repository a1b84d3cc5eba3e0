import { randomUUID } from 'node:crypto';
import { expect } from 'chai';
import { finding } from '@alforja/core';
import { JobFailure, type Handler } from '../../../src/lib/server/runner/handler.ts';
import { Runner, type Handlers } from '../../../src/lib/server/runner/runner.ts';
import { turns } from '../../../src/lib/server/runner/turns.ts';
import { db, openDatabase, write } from '../../../src/lib/server/store/database.ts';
import {
  latestJobs,
  onJobQueued,
  queueJob,
  requeueInterrupted,
  claimJob,
} from '../../../src/lib/server/store/jobs.ts';
import { news, type NewsItem } from '../../../src/lib/server/store/news.ts';
import { JOB_KINDS, type JobKind } from '../../../src/lib/shared/types.ts';
import { settled, until } from '../../support/server.ts';

const idle: Handler = { run: async () => undefined };
const handlers = (over: Partial<Handlers>): Handlers => ({
  ...(Object.fromEntries(JOB_KINDS.map((k) => [k, idle])) as Record<JobKind, Handler>),
  ...over,
});
const queue = (kind: JobKind, subject: string, over = {}): Promise<string> =>
  write((tx) => queueJob(tx, kind, subject, over));
const stateOf = async (kind: JobKind, subject: string): Promise<string | undefined> =>
  (await latestJobs(subject))[kind]?.state;

describe('the runner', () => {
  before(openDatabase);
  afterEach(async () => {
    await settled();
    onJobQueued(() => undefined);
  });

  it('runs what is queued by the handler of its kind, and says when it is done', async () => {
    const ran: string[] = [];
    const heard: NewsItem[] = [];
    const stop = news.listen((n) => heard.push(n));
    await new Runner(handlers({ undo: { run: async (subject) => void ran.push(subject) } })).start();
    const subject = randomUUID();
    const id = await queue('undo', subject);
    await settled();
    stop();
    expect(ran).to.deep.equal([subject]);
    expect(heard.filter((n) => n.job?.id === id).map((n) => n.job!.state)).to.deep.equal(['done']);
  });

  it('takes what nobody waits for last', async () => {
    const ran: string[] = [];
    const [late, first] = [randomUUID(), randomUUID()];
    await queue('plan', late, { background: true });
    await queue('plan', first);
    // One after the other: a handler that is entered says so before the next begins.
    const runner = new Runner(handlers({ plan: { run: async (subject) => void ran.push(subject) } }));
    await runner.start();
    await settled();
    expect(ran).to.deep.equal([first, late]);
  });

  it('keeps why a job failed, and tells its handler', async () => {
    const told: string[] = [];
    const failing: Handler = {
      run: () => Promise.reject(new JobFailure(finding('file-empty', 'error', {}))),
      failed: async (subject, { code }) => void told.push(`${subject} ${code}`),
    };
    await new Runner(handlers({ undo: failing })).start();
    const subject = randomUUID();
    await queue('undo', subject);
    await settled();
    expect(told).to.deep.equal([`${subject} file-empty`]);
    const { undo } = await latestJobs(subject);
    expect([undo!.state, undo!.failure!.message]).to.deep.equal(['failed', 'The file is empty (0 bytes).']);
  });

  it('says in words what went wrong unforeseen', async () => {
    await new Runner(
      handlers({ undo: { run: () => Promise.reject(new Error('a wheel fell off')) } }),
    ).start();
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
      stopped: async (subject) => void stopped.push(subject),
    };
    const runner = new Runner(handlers({ send: waiting }));
    await runner.start();
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

  it('takes up what a run before it left, but not for ever', async () => {
    const subject = randomUUID();
    const id = await queue('undo', subject);
    for (let n = 0; n < 4; n++) {
      expect(await write((tx) => claimJob(tx, id))).to.equal(true);
      expect(await write((tx) => claimJob(tx, id)), 'claimed twice').to.equal(false);
      await write((tx) => requeueInterrupted(tx, 5));
      expect(await stateOf('undo', subject)).to.equal('queued');
    }
    await write((tx) => claimJob(tx, id));
    await write((tx) => requeueInterrupted(tx, 5));
    expect(await stateOf('undo', subject)).to.equal('failed');
    void db;
  });

  it('lets computing and waiting work side by side', async () => {
    let release = (): void => undefined;
    const blocked: Handler = { waits: true, run: () => new Promise((done) => (release = done)) };
    const ran: string[] = [];
    await new Runner(handlers({ send: blocked, plan: { run: async (s) => void ran.push(s) } })).start();
    const subject = randomUUID();
    await queue('send', randomUUID());
    await queue('plan', subject);
    await until('the planning', () => ran.includes(subject));
    release();
  });
});

describe('turns', () => {
  it('keep work on one thing apart, in its order, also after one that failed', async () => {
    const log: string[] = [];
    const work =
      (name: string, fails = false) =>
      async (): Promise<void> => {
        log.push(`${name} begins`);
        await new Promise((done) => setImmediate(done));
        log.push(`${name} ends`);
        if (fails) throw new Error(name);
      };
    await Promise.all([
      turns.inTurn('course', work('a', true)).catch(() => undefined),
      turns.inTurn('course', work('b')),
      turns.inTurn('other', work('c')),
    ]);
    const ofCourse = log.filter((l) => !l.startsWith('c'));
    expect(ofCourse).to.deep.equal(['a begins', 'a ends', 'b begins', 'b ends']);
    expect(log.indexOf('c begins')).to.be.below(log.indexOf('a ends'));
  });
});

describe('news', () => {
  it('tells a page what ended since it was loaded, and nothing twice', () => {
    const before = news.latest();
    const job = { id: 'j', kind: 'read', subject: 's', step: '', done: 0, total: 0, failure: null } as const;
    news.announceJob({ ...job, state: 'running' });
    news.announceJob({ ...job, state: 'done' });
    news.announceSubject('s');
    expect(news.endedSince(before)!.map((n) => n.job!.state)).to.deep.equal(['done']);
    expect(news.endedSince(news.latest())).to.deep.equal([]);
  });

  it('says that it cannot tell, for another run of the process or rubbish', () => {
    for (const id of ['other-1', '', 'x', `${news.latest().split('-')[0]}-NaN`])
      expect(news.endedSince(id), id).to.equal(null);
  });
});
