import { existsSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { MessageChannel } from 'node:worker_threads';
import { asc, eq, inArray } from 'drizzle-orm';
import Piscina from 'piscina';
import { finding, speak, type Finding } from '@alforja/core';
import type { JobView } from '../../shared/types.ts';
import { projectPath } from '../config.ts';
import { db, write } from '../db/client.ts';
import { jobs } from '../db/schema.ts';
import { announce } from './events.ts';
import { handlerFor } from './handlers.ts';
import { onQueued } from './queue.ts';
import type { Outcome, ProgressMessage } from './worker.ts';

type JobRow = typeof jobs.$inferSelect;

/** A job whose process died this often is not taken up again. */
const MAX_ATTEMPTS = 5;
const PROGRESS_EVERY_MS = 250;
const threads = Math.max(1, Math.min(4, cpus().length));

let pool: Piscina | null = null;
const running = new Map<string, AbortController>();

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

export function viewOf(row: JobRow): JobView {
  const failure = row.failure ? speak(JSON.parse(row.failure) as Finding) : null;
  const { id, kind, subject, state, step, done, total } = row;
  return { id, kind, subject, state, step, done, total, failure };
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
  running.get(id)?.abort();
  await write((tx) =>
    tx.update(jobs).set({ state: 'cancelled', endedAt: Date.now() }).where(eq(jobs.id, id)),
  );
  await tell(id);
}

async function tell(id: string): Promise<void> {
  const [row] = await db.select().from(jobs).where(eq(jobs.id, id));
  if (row) announce(viewOf(row));
}

onQueued(() => void pump());

let pumping = false;

async function pump(): Promise<void> {
  if (pumping) return;
  pumping = true;
  try {
    while (running.size < threads) {
      const queued = await db
        .select()
        .from(jobs)
        .where(eq(jobs.state, 'queued'))
        .orderBy(asc(jobs.createdAt))
        .limit(threads);
      const next = queued.find((j) => !running.has(j.id));
      if (!next) break;
      running.set(next.id, new AbortController());
      void runJob(next).finally(() => {
        running.delete(next.id);
        void pump();
      });
      await write((tx) =>
        tx
          .update(jobs)
          .set({ state: 'running', startedAt: Date.now(), attempts: next.attempts + 1 })
          .where(eq(jobs.id, next.id)),
      );
    }
  } finally {
    pumping = false;
  }
}

async function runJob(job: JobRow): Promise<void> {
  const { signal } = running.get(job.id)!;
  try {
    const handler = handlerFor(job.kind);
    const order = await handler.order(job.subject);
    if (!order) throw new Error('what it works for is gone');
    const { port1, port2 } = new MessageChannel();
    let last = 0;
    const progress = ({ step, done, total }: ProgressMessage): void => {
      const now = Date.now();
      if (now - last < PROGRESS_EVERY_MS) return;
      last = now;
      announce({ ...viewOf(job), state: 'running', step, done, total });
    };
    port1.on('message', progress);
    const outcome = (await openPool().run(
      { order, port: port2 },
      { transferList: [port2], signal },
    )) as Outcome;
    port1.close();
    if (signal.aborted) return;
    if (!outcome.ok) {
      await handler.failed(job.subject, outcome.failure);
      await end(job.id, 'failed', outcome.failure);
      return;
    }
    await handler.finished(job.subject, outcome, order, (step, done, total) =>
      announce({ ...viewOf(job), state: 'running', step, done, total }),
    );
    await end(job.id, 'done', null);
  } catch (error) {
    if (signal.aborted) return;
    const failure = finding('job-failed', 'error', {}, { detail: (error as Error).message });
    await handlerFor(job.kind).failed(job.subject, failure);
    await end(job.id, 'failed', failure);
  }
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
