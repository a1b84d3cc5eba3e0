import { finding } from '@alforja/core';
import type { JobKind } from '../../shared/types.ts';
import { write } from '../store/database.ts';
import {
  claimJob,
  endJob,
  jobById,
  jobView,
  onJobQueued,
  queuedJobs,
  requeueInterrupted,
  type Job,
} from '../store/jobs.ts';
import { announce } from '../store/news.ts';
import type { Progress } from '../work/progress.ts';
import { JobFailure, type Handler } from './handler.ts';
import { inThread, THREADS } from './threads.ts';

export type Handlers = Readonly<Record<JobKind, Handler>>;

/** A job whose process died this often is not taken up again. */
const MAX_ATTEMPTS = 5;
const PROGRESS_EVERY_MS = 250;
/** How many may run at once: those that compute, and those that mostly wait. */
const ROOM = { computing: THREADS, waiting: 4 } as const;
type Lane = keyof typeof ROOM;

/** Takes jobs out of the queue and runs them by the handlers it was given. */
export class Runner {
  readonly #handlers: Handlers;
  readonly #running = new Map<string, { readonly control: AbortController; readonly lane: Lane }>();
  #taking = false;
  #again = false;

  constructor(handlers: Handlers) {
    this.#handlers = handlers;
  }

  /** Takes up what a run of the process before this one left, and from now on whatever is queued. */
  async start(): Promise<void> {
    await write((tx) => requeueInterrupted(tx, MAX_ATTEMPTS));
    onJobQueued(() => void this.#take());
    void this.#take();
  }

  /** Cancels a queued or running job. */
  async cancel(id: string): Promise<void> {
    const job = await jobById(id);
    if (!job) return;
    this.#running.get(id)?.control.abort();
    if (await write((tx) => endJob(tx, id, 'cancelled')))
      await this.#handlers[job.kind].stopped?.(job.subject);
  }

  /** Whether nothing runs. */
  get idle(): boolean {
    return this.#running.size === 0 && !this.#taking;
  }

  #laneOf(kind: JobKind): Lane {
    return this.#handlers[kind].waits ? 'waiting' : 'computing';
  }

  #hasRoom(lane: Lane): boolean {
    return [...this.#running.values()].filter((r) => r.lane === lane).length < ROOM[lane];
  }

  async #take(): Promise<void> {
    if (this.#taking) return void (this.#again = true);
    this.#taking = true;
    try {
      do {
        this.#again = false;
        for (const job of await queuedJobs()) await this.#begin(job);
      } while (this.#again);
    } finally {
      this.#taking = false;
    }
  }

  async #begin(job: Job): Promise<void> {
    const lane = this.#laneOf(job.kind);
    if (this.#running.has(job.id) || !this.#hasRoom(lane)) return;
    const control = new AbortController();
    this.#running.set(job.id, { control, lane });
    const ended = (): void => {
      this.#running.delete(job.id);
      void this.#take();
    };
    if (!(await write((tx) => claimJob(tx, job.id)))) return ended();
    void this.#run(job, control.signal).finally(ended);
  }

  async #run(job: Job, signal: AbortSignal): Promise<void> {
    const handler = this.#handlers[job.kind];
    const tell = progressOf(job);
    try {
      await handler.run(job.subject, {
        signal,
        tell,
        work: (kind, asked) => inThread({ kind, asked }, tell, signal),
      });
      if (!signal.aborted) await write((tx) => endJob(tx, job.id, 'done'));
    } catch (error) {
      if (signal.aborted) return;
      const failure =
        error instanceof JobFailure
          ? error.finding
          : finding('job-failed', 'error', {}, { detail: (error as Error).message });
      await handler.failed?.(job.subject, failure);
      await write((tx) => endJob(tx, job.id, 'failed', failure));
    }
  }
}

/** Tells open pages how far a job is, now and then. */
function progressOf(job: Job): Progress {
  let last = 0;
  return (step, done, total) => {
    const now = Date.now();
    if (now - last < PROGRESS_EVERY_MS) return;
    last = now;
    announce({ ...jobView(job), state: 'running', step, done, total });
  };
}
