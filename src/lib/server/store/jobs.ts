import { randomUUID } from 'node:crypto';
import { and, asc, desc, eq, inArray } from 'drizzle-orm';
import { speak, type Finding } from '@alforja/core';
import type { JobKind, JobView } from '../../shared/types.ts';
import { db, onCommit, type Reading, type Transaction } from './database.ts';
import { findingCodec } from './documents/packages.ts';
import { announce } from './news.ts';
import { jobs } from './schema.ts';

export type Job = typeof jobs.$inferSelect;
const UNDER_WAY = ['queued', 'running'] as const;

/** Who is told that a job has come into the queue; the runner, in its own process. */
let wake: () => void = () => undefined;
export const onJobQueued = (hear: () => void): void => void (wake = hear);

/**
 * Puts a job in the queue, in the change that makes it needed: both are there, or neither.
 * @param subject the package, transfer, course … it works for
 */
export async function queueJob(
  tx: Transaction,
  kind: JobKind,
  subject: string,
  { background = false } = {},
): Promise<string> {
  const id = randomUUID();
  await tx.insert(jobs).values({ id, kind, subject, state: 'queued', createdAt: Date.now(), background });
  onCommit(tx, () => wake());
  return id;
}

/** Puts a job in the queue unless one like it waits or runs. */
export async function queueJobOnce(
  tx: Transaction,
  kind: JobKind,
  subject: string,
  over: { readonly background?: boolean } = {},
): Promise<void> {
  if (!(await underWay(tx, kind, subject))) await queueJob(tx, kind, subject, over);
}

/** Puts a job in the queue unless one like it waits: one that runs may have begun before what it is needed for. */
export async function queueJobAnew(tx: Transaction, kind: JobKind, subject: string): Promise<void> {
  if (!(await anyOf(tx, kind, subject, ['queued']))) await queueJob(tx, kind, subject);
}

/** Whether a job of this kind waits or runs for a subject. */
export const underWay = (on: Reading, kind: JobKind, subject: string): Promise<boolean> =>
  anyOf(on, kind, subject, UNDER_WAY);

async function anyOf(
  on: Reading,
  kind: JobKind,
  subject: string,
  states: readonly (typeof UNDER_WAY)[number][],
): Promise<boolean> {
  const [busy] = await on
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(eq(jobs.kind, kind), eq(jobs.subject, subject), inArray(jobs.state, states)))
    .limit(1);
  return busy !== undefined;
}

export async function jobById(id: string): Promise<Job | null> {
  return (await db.select().from(jobs).where(eq(jobs.id, id)))[0] ?? null;
}

export async function jobsUnderWay(): Promise<JobView[]> {
  const rows = await db
    .select()
    .from(jobs)
    .where(inArray(jobs.state, UNDER_WAY))
    .orderBy(asc(jobs.createdAt));
  return rows.map(jobView);
}

/** What waits, in the order in which it is taken up: what nobody waits for comes last. */
export const queuedJobs = (): Promise<Job[]> =>
  db.select().from(jobs).where(eq(jobs.state, 'queued')).orderBy(asc(jobs.background), asc(jobs.createdAt));

/** Takes a job out of the queue to run it. @returns false where another has taken or cancelled it */
export async function claimJob(tx: Transaction, id: string): Promise<boolean> {
  const [job] = await tx.select().from(jobs).where(eq(jobs.id, id));
  if (job?.state !== 'queued') return false;
  await tx
    .update(jobs)
    .set({ state: 'running', startedAt: Date.now(), attempts: job.attempts + 1 })
    .where(eq(jobs.id, id));
  return true;
}

/** Writes down how a job ended, unless somebody has cancelled it meanwhile. */
export async function endJob(
  tx: Transaction,
  id: string,
  state: 'done' | 'failed' | 'cancelled',
  failure: Finding | null = null,
): Promise<boolean> {
  const [job] = await tx.select().from(jobs).where(eq(jobs.id, id));
  if (!job || (job.state !== 'queued' && job.state !== 'running')) return false;
  const ended = {
    ...job,
    state,
    failure: failure && findingCodec.write(failure),
    endedAt: Date.now(),
  } as const;
  await tx.update(jobs).set(ended).where(eq(jobs.id, id));
  onCommit(tx, () => announce(jobView(ended)));
  return true;
}

/**
 * After a restart: what was running waits again.
 * @param most a job that has brought the process down this often is given up
 */
export async function requeueInterrupted(tx: Transaction, most: number): Promise<void> {
  const interrupted = await tx.select().from(jobs).where(eq(jobs.state, 'running'));
  for (const { id, attempts } of interrupted) {
    const state = attempts >= most ? 'failed' : 'queued';
    await tx.update(jobs).set({ state, step: '', done: 0, total: 0 }).where(eq(jobs.id, id));
  }
}

/** The latest job of each kind for a subject. */
export async function latestJobs(subject: string): Promise<Partial<Record<JobKind, JobView>>> {
  const rows = await db
    .select()
    .from(jobs)
    .where(eq(jobs.subject, subject))
    .orderBy(desc(jobs.createdAt))
    .limit(30);
  const latest: Partial<Record<JobKind, JobView>> = {};
  for (const row of rows) latest[row.kind] ??= jobView(row);
  return latest;
}

/** A job as pages show it. */
export function jobView(row: Job): JobView {
  const failure = findingCodec.readOptional(row.failure);
  const { id, kind, subject, state, step, done, total } = row;
  return { id, kind, subject, state, step, done, total, failure: failure && speak(failure) };
}
