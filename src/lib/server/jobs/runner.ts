import { existsSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import { asc, eq, inArray } from 'drizzle-orm';
import Piscina from 'piscina';
import { finding, type Finding } from '@alforja/core';
import type { JobView } from '../../shared/types.ts';
import { projectPath } from '../config.ts';
import { db, write } from '../db/client.ts';
import { jobs } from '../db/schema.ts';
import { announce } from './events.ts';
import { JobFailure, type Succeeded, type Tell } from './context.ts';
import { handlerFor, WAITING_KINDS, type JobKind } from './handlers.ts';
import { onQueued } from './queue.ts';
import { viewOf, type JobRow } from './view.ts';
import type { Order, Outcome, ProgressMessage } from './worker.ts';

/** A job whose process died this often is not taken up again. */
const MAX_ATTEMPTS = 5;
const PROGRESS_EVERY_MS = 250;
const threads = Math.max(1, Math.min(4, cpus().length));

let pool: Piscina | null = null;
const running = new Map<string, { readonly control: AbortController; readonly kind: JobKind }>();

/** The worker as a bundle in production; from source, through tsx, in development. */
function openPool(): Piscina {
  const built = join(projectPath, 'build', 'workers', 'job.js');
  const useBuilt = process.env['NODE_ENV'] === 'production' && existsSync(built);
  return (pool ??= new Piscina({
    filename: useBuilt ? built : join(projectPath, 'src/lib/server/jobs/worker.ts'),
    execArgv: useBuilt ? [] : ['--import', 'tsx'],
    minThreads: 0,
    maxThreads: threads,
    idleTimeout: 10_000,
    // A tree is one large heap in which nearly everything lives on: a roomy nursery spares copying it over and over.
    resourceLimits: { maxYoungGenerationSizeMb: 192 },
  }));
}

/** After a restart: what was running is queued again, unless it has brought the process down too often. */
export async function resumeJobs(): Promise<void> {
  await write(async (tx) => {
    const interrupted = await tx.select().from(jobs).where(eq(jobs.state, 'running'));
    for (const job of interrupted) {
      await tx
        .update(jobs)
        .set({ state: job.attempts >= MAX_ATTEMPTS ? 'failed' : 'queued', step: '', done: 0, total: 0 })
        .where(eq(jobs.id, job.id));
    }
  });
  void pump();
}

export async function activeJobs(): Promise<JobView[]> {
  const rows = await db
    .select()
    .from(jobs)
    .where(inArray(jobs.state, ['queued', 'running']))
    .orderBy(asc(jobs.createdAt));
  return rows.map(viewOf);
}

/** Cancels a queued or running job. */
export async function cancel(id: string): Promise<void> {
  const [job] = await db.select().from(jobs).where(eq(jobs.id, id));
  if (!job || (job.state !== 'queued' && job.state !== 'running')) return;
  running.get(id)?.control.abort();
  await write((tx) =>
    tx.update(jobs).set({ state: 'cancelled', endedAt: Date.now() }).where(eq(jobs.id, id)),
  );
  await handlerFor(job.kind).stopped?.(job.subject);
  await tell(id);
}

async function tell(id: string): Promise<void> {
  const [row] = await db.select().from(jobs).where(eq(jobs.id, id));
  if (row) announce(viewOf(row));
}

onQueued(() => void pump());

let pumping = false;
let again = false;

/** How many may run at once: those that compute, and those that mostly wait. */
const laneOf = (kind: JobKind): 'computing' | 'waiting' =>
  WAITING_KINDS.has(kind) ? 'waiting' : 'computing';
const ROOM = { computing: threads, waiting: 4 } as const;

async function pump(): Promise<void> {
  if (pumping) return void (again = true);
  pumping = true;
  try {
    do {
      again = false;
      const queued = await db
        .select()
        .from(jobs)
        .where(eq(jobs.state, 'queued'))
        .orderBy(asc(jobs.createdAt));
      for (const next of queued) {
        if (running.has(next.id) || occupied(laneOf(next.kind)) >= ROOM[laneOf(next.kind)]) continue;
        running.set(next.id, { control: new AbortController(), kind: next.kind });
        await write((tx) =>
          tx
            .update(jobs)
            .set({ state: 'running', startedAt: Date.now(), attempts: next.attempts + 1 })
            .where(eq(jobs.id, next.id)),
        );
        void runJob(next).finally(() => {
          running.delete(next.id);
          void pump();
        });
      }
    } while (again);
  } finally {
    pumping = false;
  }
}

const occupied = (lane: 'computing' | 'waiting'): number =>
  [...running.values()].filter((r) => laneOf(r.kind) === lane).length;

async function runJob(job: JobRow): Promise<void> {
  const { signal } = running.get(job.id)!.control;
  const handler = handlerFor(job.kind);
  let last = 0;
  const tell: Tell = (step, done, total) => {
    const now = Date.now();
    if (now - last < PROGRESS_EVERY_MS) return;
    last = now;
    announce({ ...viewOf(job), state: 'running', step, done, total });
  };
  try {
    await handler.run(job.subject, { signal, tell, work: (order) => inWorker(order, tell, signal) });
    if (!signal.aborted) await end(job.id, 'done', null);
  } catch (error) {
    if (signal.aborted) return;
    const failure =
      error instanceof JobFailure
        ? error.finding
        : finding('job-failed', 'error', {}, { detail: (error as Error).message });
    await handler.failed(job.subject, failure);
    await end(job.id, 'failed', failure);
  }
}

async function inWorker<K extends Succeeded['kind']>(
  order: Extract<Order, { kind: K }>,
  tell: Tell,
  signal: AbortSignal,
): Promise<Extract<Succeeded, { kind: K }>> {
  const { port1, port2 } = new MessageChannel();
  port1.on('message', ({ step, done, total }: ProgressMessage) => tell(step, done, total));
  const outcome = (await openPool().run(
    { order, port: port2 },
    { transferList: [port2], signal },
  )) as Outcome;
  port1.close();
  if (!outcome.ok) throw new JobFailure(outcome.failure);
  return outcome as Extract<Succeeded, { kind: K }>;
}

async function end(id: string, state: 'done' | 'failed', failure: Finding | null): Promise<void> {
  await write((tx) =>
    tx
      .update(jobs)
      .set({ state, failure: failure ? JSON.stringify(failure) : null, endedAt: Date.now() })
      .where(eq(jobs.id, id)),
  );
  await tell(id);
}
