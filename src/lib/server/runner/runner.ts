import { setTimeout as wait } from 'node:timers/promises';
import { finding, Refusal, type Finding } from '@alforja/core';
import type { JobKind, JobView } from '../../shared/types.ts';
import { fenced, unfenced, write, type Transaction } from '../store/database.ts';
import {
  claimJob,
  endJob,
  handBack,
  jobById,
  jobsElsewhere,
  jobsOf,
  jobView,
  needOwner,
  NoLongerOurs,
  noteProgress,
  onJobQueued,
  orphanedJobs,
  queuedJobs,
  requeue,
  type Job,
} from '../store/jobs.ts';
import { live } from '../store/news.ts';
import { troubleOf } from '../store/open.ts';
import { dropLease, endLease, LEASE_MS, renewLease } from '../store/processes.ts';
import type { Progress } from '../work/progress.ts';
import { JobFailure, type Ending, type Handler } from './handler.ts';
import { forgetOwner, LeaseWatch, newOwner } from './leases.ts';
import { inThread, THREADS } from './threads.ts';

export type Handlers = Readonly<Record<JobKind, Handler>>;
/** Told, in the change itself, of a job that is given up since its process has ended too often. */
export type GivenUp = (tx: Transaction, job: Job, why: Finding) => Promise<unknown>;

/** A job whose process ended this often meanwhile is not taken up again. */
export const MAX_ATTEMPTS = 5;
const PROGRESS_EVERY_MS = 250;
/** How often it is looked for what other processes left, stopped or queued, in ms. */
const BEAT_MS = 1000;
const RENEW_EVERY_MS = LEASE_MS / 5;
/** How many may run at once: those that compute, and those that mostly wait. */
const ROOM = { computing: THREADS, waiting: 4 } as const;
type Lane = keyof typeof ROOM;

interface Running {
  readonly control: AbortController;
  readonly lane: Lane;
  /** Whether the database says that it is ours. */
  claimed: boolean;
  /** How far it is, where that has not been written down yet. */
  progress: Pick<Job, 'step' | 'done' | 'total'> | null;
}

/**
 * Takes jobs out of the queue and runs them by the handlers it was given. Several processes may do so on one
 * database: a job is claimed with a lease, and only who holds it writes anything of it.
 */
export class Runner {
  readonly #handlers: Handlers;
  readonly #givenUp: GivenUp;
  readonly #running = new Map<string, Running>();
  readonly #watch = new LeaseWatch();
  #owner = newOwner();
  #timer: NodeJS.Timeout | undefined;
  #renewed = 0;
  #taking: Promise<void> | null = null;
  #again = false;
  #beating = false;
  #stopping = false;

  constructor(handlers: Handlers, givenUp: GivenUp = async () => undefined) {
    this.#handlers = handlers;
    this.#givenUp = givenUp;
  }

  /** Takes up what processes before this one left, and from now on whatever is queued. */
  async start(): Promise<void> {
    this.#stopping = false;
    await this.takeOver();
    onJobQueued(() => this.#wake());
    this.#timer ??= setInterval(() => void this.#beat(), BEAT_MS);
    this.#timer.unref();
    this.#wake();
  }

  /**
   * Takes nothing up any more, gives what runs a while to end, and hands the rest back.
   * @param grace ms
   */
  async stop(grace = 0): Promise<void> {
    this.#stopping = true;
    await this.#taking;
    for (const from = performance.now(); this.#running.size > 0 && performance.now() - from < grace;)
      await wait(20);
    clearInterval(this.#timer);
    this.#timer = undefined;
    await write(async (tx) => {
      await handBack(tx, this.#owner);
      await dropLease(tx, this.#owner);
    });
    for (const id of this.#running.keys()) this.#breakOff(id);
  }

  /** Stops a queued or running job, whichever process runs it. */
  async cancel(id: string): Promise<void> {
    const stopped = await write(async (tx) => {
      const job = await jobById(id, tx);
      if (!job || !(await endJob(tx, id, null, 'cancelled'))) return false;
      await this.#handlers[job.kind].stopped?.(tx, job.subject);
      return true;
    });
    if (stopped) this.#breakOff(id);
  }

  /** Breaks a job off; whatever of it is still under way writes nothing any more, and stands in nobody's way. */
  #breakOff(id: string): void {
    this.#running.get(id)?.control.abort();
    this.#running.delete(id);
  }

  /** Whether nothing runs. */
  get idle(): boolean {
    return this.#running.size === 0 && this.#taking === null;
  }

  #hasRoom(lane: Lane): boolean {
    return [...this.#running.values()].filter((r) => r.lane === lane).length < ROOM[lane];
  }

  /** Looks at the queue; what goes wrong is tried again with the next beat. */
  #wake(): void {
    this.#again = true;
    this.#taking ??= unfenced(() => this.#take())
      .catch((error: unknown) => console.error('The queue could not be worked on:', error))
      .finally(() => (this.#taking = null));
  }

  async #take(): Promise<void> {
    while (this.#again && !this.#stopping) {
      this.#again = false;
      for (const job of await queuedJobs()) await this.#begin(job);
    }
  }

  async #begin(job: Job): Promise<void> {
    const lane = this.#handlers[job.kind].waits ? 'waiting' : 'computing';
    if (this.#stopping || this.#running.has(job.id) || !this.#hasRoom(lane)) return;
    const owner = this.#owner;
    const running: Running = { control: new AbortController(), lane, claimed: false, progress: null };
    this.#running.set(job.id, running);
    const claimed = await write((tx) => claimJob(tx, job.id, owner)).catch((error: unknown) => {
      this.#running.delete(job.id);
      throw error;
    });
    if (!claimed) return void this.#running.delete(job.id);
    running.claimed = true;
    this.#run(job, owner, running)
      .catch((error: unknown) => console.error('How a job ended could not be written down:', error))
      .finally(() => {
        if (this.#running.get(job.id) === running) this.#running.delete(job.id);
        this.#wake();
      });
  }

  async #run(job: Job, owner: string, running: Running): Promise<void> {
    const handler = this.#handlers[job.kind];
    const { signal } = running.control;
    const tell = this.#progressOf(job, running);
    const by = { job: job.id, owner };
    let ending: Ending | void;
    try {
      ending = await fenced(
        (tx) => needOwner(tx, by),
        () =>
          handler.run(job.subject, {
            id: job.id,
            signal,
            tell,
            work: (kind, asked) => inThread({ kind, asked, by }, tell, signal),
          }),
      );
    } catch (error) {
      if (signal.aborted || error instanceof NoLongerOurs) return;
      const failure = failureOf(error);
      await write(async (tx) => {
        if (await endJob(tx, job.id, owner, 'failed', failure))
          await handler.failed?.(tx, job.subject, failure);
      });
      return;
    }
    await write(async (tx) => {
      if (await endJob(tx, job.id, owner, 'done')) await ending?.(tx);
    });
  }

  /** Tells open pages how far a job is, now and then. */
  #progressOf(job: Job, running: Running): Progress {
    let last = 0;
    return (step, done, total) => {
      running.progress = { step, done, total };
      const now = performance.now();
      if (now - last < PROGRESS_EVERY_MS) return;
      last = now;
      live.progress({ ...jobView(job), state: 'running', step, done, total });
      // A thread that has come this far may have told something, too.
      live.look();
    };
  }

  /** What is done once a second; what goes wrong is tried again with the next. */
  async #beat(): Promise<void> {
    if (this.#beating) return;
    this.#beating = true;
    try {
      await this.#renew();
      await this.#drop();
      await this.takeOver();
      await this.#tellElsewhere();
      this.#wake();
    } catch (error) {
      console.error('The queue could not be looked at:', error);
    } finally {
      this.#beating = false;
    }
  }

  /** Renews the lease and writes down how far each job is, where something runs. */
  async #renew(): Promise<void> {
    const told = [...this.#running].filter(([, { progress }]) => progress !== null);
    const due = performance.now() - this.#renewed > RENEW_EVERY_MS;
    if (this.#running.size === 0 || (!due && told.length === 0)) return;
    const owner = this.#owner;
    const held = await write(async (tx) => {
      for (const [id, { progress }] of told) if (progress) await noteProgress(tx, id, owner, progress);
      // Nothing has been claimed yet where all of it still waits for the database.
      return (await renewLease(tx, owner)) || (await jobsOf(owner, tx)).length === 0;
    });
    for (const [, running] of told) running.progress = null;
    this.#renewed = performance.now();
    if (!held) this.#lost();
  }

  /** Others took this process for gone, and have its jobs: it stood still for too long. */
  #lost(): void {
    for (const id of this.#running.keys()) this.#breakOff(id);
    forgetOwner(this.#owner);
    this.#owner = newOwner();
  }

  /** Breaks off what was stopped or taken over elsewhere, and takes up what ended here without a word. */
  async #drop(): Promise<void> {
    const before = [...this.#running].filter(([, { claimed }]) => claimed);
    const held = await jobsOf(this.#owner);
    for (const [id, running] of before)
      if (!held.includes(id) && this.#running.get(id) === running) this.#breakOff(id);
    const lost = held.filter((id) => !this.#running.has(id) && !before.some(([of]) => of === id));
    if (lost.length > 0) await write((tx) => this.#interrupt(tx, lost));
  }

  /** Takes up what processes left that are gone. */
  async takeOver(): Promise<void> {
    const lapsed = await this.#watch.lapsed();
    if (lapsed.length === 0 && (await orphanedJobs()).length === 0) return;
    await write(async (tx) => {
      // What their processes ran is nobody's then.
      for (const process of lapsed) await endLease(tx, process);
      await this.#interrupt(
        tx,
        (await orphanedJobs(tx)).map((j) => j.id),
      );
    });
  }

  /** What was interrupted waits again, but not for ever. */
  async #interrupt(tx: Transaction, ids: readonly string[]): Promise<void> {
    for (const id of ids) {
      const job = (await jobById(id, tx))!;
      if (job.attempts < MAX_ATTEMPTS) {
        await requeue(tx, id);
        continue;
      }
      const why = finding('job-interrupted', 'error', {}, { times: job.attempts });
      if (!(await endJob(tx, id, null, 'failed', why))) continue;
      await this.#handlers[job.kind].failed?.(tx, job.subject, why);
      await this.#givenUp(tx, job, why);
    }
  }

  readonly #told = new Map<string, string>();

  /** Tells pages of this process how far jobs of others are. */
  async #tellElsewhere(): Promise<void> {
    const elsewhere: JobView[] = live.heard ? await jobsElsewhere(this.#owner) : [];
    const before = new Map(this.#told);
    this.#told.clear();
    for (const view of elsewhere) {
      const said = JSON.stringify([view.step, view.done, view.total]);
      this.#told.set(view.id, said);
      if (before.get(view.id) !== said) live.progress(view);
    }
  }
}

const failureOf = (error: unknown): Finding =>
  error instanceof JobFailure || error instanceof Refusal
    ? error.finding
    : finding('job-failed', 'error', {}, { detail: troubleOf(error).message.replace(/\.$/u, '') });
