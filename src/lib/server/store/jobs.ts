import { randomUUID } from 'node:crypto';
import { and, asc, desc, eq, inArray, lt, ne, sql } from 'drizzle-orm';
import { speak, type Finding } from '@alforja/core';
import type { JobKind, JobView } from '../../shared/types.ts';
import { db, onCommit, type Reading, type Transaction } from './database.ts';
import { findingCodec } from './documents/packages.ts';
import { announce } from './news.ts';
import { takeLease } from './processes.ts';
import { jobs } from './schema.ts';

export type Job = typeof jobs.$inferSelect;
const UNDER_WAY = ['queued', 'running'] as const;

/** Who is told that a job has come into the queue; the runner, in its own process. */
let wake: () => void = () => undefined;
export const onJobQueued = (hear: () => void): void => void (wake = hear);

export interface QueueOptions {
  /** Waits until nothing that somebody waits for is in the queue. */
  readonly background?: boolean;
  /** Of all jobs with the same turn one runs at a time, in their order. */
  readonly turn?: string | null;
}

/**
 * Puts a job in the queue, in the change that makes it needed: both are there, or neither.
 * @param subject the package, transfer, course … it works for
 * @returns its id; null where one like it waits or runs, which is then the only one
 */
export async function queueJob(
  tx: Transaction,
  kind: JobKind,
  subject: string,
  { background = false, turn = null }: QueueOptions = {},
): Promise<string | null> {
  const id = randomUUID();
  const seq = sql`(SELECT coalesce(max(seq), 0) + 1 FROM jobs)`;
  const [open] = await tx
    .insert(jobs)
    .values({ id, seq, kind, subject, state: 'queued', createdAt: Date.now(), background, turn })
    .onConflictDoUpdate({
      target: [jobs.kind, jobs.subject],
      targetWhere: sql`state IN ('queued', 'running')`,
      // What nobody waited for, somebody may wait for now.
      set: { background: sql`min(background, excluded.background)` },
    })
    .returning({ id: jobs.id });
  onCommit(tx, () => wake());
  return open?.id === id ? id : null;
}

/**
 * Puts a job in the queue; one that runs may have begun before what it is needed for, and follows itself once it
 * has ended.
 */
export async function queueJobAnew(tx: Transaction, kind: JobKind, subject: string): Promise<void> {
  if ((await queueJob(tx, kind, subject)) !== null) return;
  await tx
    .update(jobs)
    .set({ again: true })
    .where(and(eq(jobs.kind, kind), eq(jobs.subject, subject), eq(jobs.state, 'running')));
}

/** Whether a job of one of these kinds waits or runs, for a subject or for any. */
export async function underWay(
  on: Reading,
  kinds: JobKind | readonly JobKind[],
  subject?: string,
): Promise<boolean> {
  const [busy] = await on
    .select({ id: jobs.id })
    .from(jobs)
    .where(
      and(
        inArray(jobs.kind, typeof kinds === 'string' ? [kinds] : [...kinds]),
        subject === undefined ? undefined : eq(jobs.subject, subject),
        inArray(jobs.state, UNDER_WAY),
      ),
    )
    .limit(1);
  return busy !== undefined;
}

export async function jobById(id: string, on: Reading = db): Promise<Job | null> {
  return (await on.select().from(jobs).where(eq(jobs.id, id)))[0] ?? null;
}

export async function jobsUnderWay(): Promise<JobView[]> {
  const rows = await db.select().from(jobs).where(inArray(jobs.state, UNDER_WAY)).orderBy(asc(jobs.seq));
  return rows.map(jobView);
}

/** What runs in other processes, as far as they have said how far it is. */
export async function jobsElsewhere(owner: string): Promise<JobView[]> {
  const rows = await db
    .select()
    .from(jobs)
    .where(and(eq(jobs.state, 'running'), ne(jobs.owner, owner)));
  return rows.map(jobView);
}

/** What waits, in the order in which it is taken up: what nobody waits for comes last. */
export const queuedJobs = (): Promise<Job[]> =>
  db.select().from(jobs).where(eq(jobs.state, 'queued')).orderBy(asc(jobs.background), asc(jobs.seq));

/**
 * Takes a job out of the queue to run it, with a lease on it.
 * @returns false where another has taken or cancelled it, or it is another one's turn
 */
export async function claimJob(tx: Transaction, id: string, owner: string): Promise<boolean> {
  const [claimed] = await tx
    .update(jobs)
    .set({ state: 'running', owner, startedAt: Date.now(), attempts: sql`${jobs.attempts} + 1` })
    .where(
      and(
        eq(jobs.id, id),
        eq(jobs.state, 'queued'),
        sql`NOT EXISTS (SELECT 1 FROM jobs o WHERE o.turn = jobs.turn AND o.id <> jobs.id
          AND (o.state = 'running' OR (o.state = 'queued' AND o.seq < jobs.seq)))`,
      ),
    )
    .returning();
  if (!claimed) return false;
  await takeLease(tx, owner);
  await announce(tx, jobView(claimed));
  return true;
}

/** Who runs a job: what is done for it is done as long as that holds. */
export interface JobOwner {
  readonly job: string;
  readonly owner: string;
}

/** No change of a job is made once it was stopped or taken over. */
export class NoLongerOurs extends Error {}

/** @throws NoLongerOurs where a job was stopped, or is run by another process */
export async function needOwner(tx: Transaction, { job: id, owner }: JobOwner): Promise<void> {
  const job = await jobById(id, tx);
  if (job?.state !== 'running' || job.owner !== owner) throw new NoLongerOurs();
}

/** Ids of the jobs that a process runs. */
export async function jobsOf(owner: string, on: Reading = db): Promise<string[]> {
  const rows = await on
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(eq(jobs.state, 'running'), eq(jobs.owner, owner)));
  return rows.map((r) => r.id);
}

/** Writes down how far a job is, for pages that other processes show. */
export const noteProgress = (
  tx: Transaction,
  id: string,
  owner: string,
  { step, done, total }: Pick<Job, 'step' | 'done' | 'total'>,
): Promise<unknown> =>
  tx
    .update(jobs)
    .set({ step, done, total })
    .where(and(eq(jobs.id, id), eq(jobs.owner, owner), eq(jobs.state, 'running')));

/**
 * Writes down how a job ended.
 * @param owner the process that ran it; null where somebody stops it, whoever runs it
 * @returns false where it has ended already, or another process runs it now
 */
export async function endJob(
  tx: Transaction,
  id: string,
  owner: string | null,
  state: 'done' | 'failed' | 'cancelled',
  failure: Finding | null = null,
): Promise<boolean> {
  const [ended] = await tx
    .update(jobs)
    .set({ state, failure: failure && findingCodec.write(failure), endedAt: Date.now(), owner: null })
    .where(
      and(
        eq(jobs.id, id),
        inArray(jobs.state, UNDER_WAY),
        owner === null ? undefined : and(eq(jobs.state, 'running'), eq(jobs.owner, owner)),
      ),
    )
    .returning();
  if (!ended) return false;
  await announce(tx, jobView(ended));
  if (ended.again && state !== 'cancelled')
    await queueJob(tx, ended.kind, ended.subject, { turn: ended.turn });
  // Somebody else's turn may have come.
  onCommit(tx, () => wake());
  return true;
}

const WAITS_AGAIN = { state: 'queued', owner: null, step: '', done: 0, total: 0 } as const;

/** Gives jobs back to the queue that a process does not finish; that it began them does not count. */
export const handBack = (tx: Transaction, owner: string): Promise<unknown> =>
  tx
    .update(jobs)
    .set({ ...WAITS_AGAIN, attempts: sql`max(${jobs.attempts} - 1, 0)` })
    .where(and(eq(jobs.state, 'running'), eq(jobs.owner, owner)));

/** What runs for nobody any more: the process that had it is gone. */
export const orphanedJobs = (on: Reading = db): Promise<Job[]> =>
  on
    .select()
    .from(jobs)
    .where(
      and(
        eq(jobs.state, 'running'),
        sql`(${jobs.owner} IS NULL OR ${jobs.owner} NOT IN (SELECT id FROM processes))`,
      ),
    )
    .orderBy(asc(jobs.seq));

/** Puts a job back in the queue that was interrupted. */
export const requeue = (tx: Transaction, id: string): Promise<unknown> =>
  tx.update(jobs).set(WAITS_AGAIN).where(eq(jobs.id, id));

/** Removes jobs that ended before a moment (ms). @returns how many */
export const removeEndedJobs = async (tx: Transaction, before: number): Promise<number> =>
  (await tx.delete(jobs).where(lt(jobs.endedAt, before)).returning({ id: jobs.id })).length;

/** The latest job of each kind for a subject. */
export async function latestJobs(
  subject: string,
  on: Reading = db,
): Promise<Partial<Record<JobKind, JobView>>> {
  const rows = await on
    .select()
    .from(jobs)
    .where(eq(jobs.subject, subject))
    .orderBy(desc(jobs.seq))
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
