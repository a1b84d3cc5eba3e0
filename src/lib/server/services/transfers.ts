import { randomUUID } from 'node:crypto';
import { and, desc, eq, gte, isNull, lte } from 'drizzle-orm';
import { find, quizItems, type Target } from '@alforja/core';
import type { Arrival, Forecast, Sent, Tally, Tick, TransferListing, Tree } from '../../shared/types.ts';
import { db, write } from '../db/client.ts';
import { jobs, packages, ticks, transfers } from '../db/schema.ts';
import { enqueue } from '../jobs/queue.ts';
import { viewOf } from '../jobs/view.ts';
import { allItems, packageById } from './packages.ts';

export type TransferRow = typeof transfers.$inferSelect;

/** Without the long columns. */
const LISTED = {
  id: transfers.id,
  title: transfers.title,
  createdAt: transfers.createdAt,
  sentAt: transfers.sentAt,
  comparedAt: transfers.comparedAt,
  tally: transfers.tally,
};

export interface TransferFilter {
  /** Words of the title, the source or either course, spelling forgiven. */
  readonly query?: string;
  /** ISO dates, both included. */
  readonly from?: string;
  readonly to?: string;
}

/** Transfers, newest first; the parts of a batch stand with the batch. */
export async function listTransfers(limit = 200, filter: TransferFilter = {}): Promise<TransferListing[]> {
  const day = (date: string, end: boolean): number =>
    Date.parse(`${date}T${end ? '23:59:59.999' : '00:00:00'}Z`);
  const rows = await db
    .select({ transfer: LISTED, packageName: packages.name })
    .from(transfers)
    .innerJoin(packages, eq(packages.id, transfers.packageId))
    .where(
      and(
        filter.query ? undefined : isNull(transfers.batchId),
        filter.from ? gte(transfers.createdAt, day(filter.from, false)) : undefined,
        filter.to ? lte(transfers.createdAt, day(filter.to, true)) : undefined,
      ),
    )
    .orderBy(desc(transfers.createdAt))
    .limit(filter.query ? 5000 : limit);
  const said = (r: (typeof rows)[number]): string => `${r.transfer.title} ${r.packageName} ${r.transfer.id}`;
  const found = filter.query ? find(rows, filter.query, said).map((h) => h.entry) : rows;
  return found.slice(0, limit).map(({ transfer: t, packageName }) => {
    const tally = t.tally ? (JSON.parse(t.tally) as Tally) : null;
    return {
      id: t.id,
      title: t.title,
      packageName,
      createdAt: t.createdAt,
      sentAt: t.sentAt,
      comparedAt: t.comparedAt,
      counts: tally?.counts ?? null,
      verdict: tally?.verdict ?? null,
    };
  });
}

export const transferById = async (id: string): Promise<TransferRow | null> =>
  (await db.select().from(transfers).where(eq(transfers.id, id)))[0] ?? null;
export const ticksFor = (id: string): Promise<Tick[]> =>
  db.select({ kind: ticks.kind, nodeId: ticks.nodeId }).from(ticks).where(eq(ticks.transferId, id));

/** The latest job of each kind for a transfer. */
export async function jobsFor(id: string) {
  const rows = await db
    .select()
    .from(jobs)
    .where(eq(jobs.subject, id))
    .orderBy(desc(jobs.createdAt))
    .limit(20);
  const latest = (kind: (typeof rows)[number]['kind']) => rows.find((j) => j.kind === kind) ?? null;
  return {
    forecast: latest('forecast'),
    send: latest('send'),
    compare: latest('compare'),
    plan: latest('plan'),
    carry: latest('carry'),
    undo: latest('undo'),
  };
}

export async function latestJobs(id: string) {
  const found = await jobsFor(id);
  const view = (job: typeof found.send) => (job ? viewOf(job) : null);
  const { forecast, send, compare, plan, carry, undo } = found;
  return {
    forecast: view(forecast),
    send: view(send),
    compare: view(compare),
    plan: view(plan),
    carry: view(carry),
    undo: view(undo),
  };
}

/** Starts a transfer of a package with everything ticked. */
export async function startTransfer(packageId: string): Promise<string | null> {
  const source = await packageById(packageId);
  if (!source?.tree) return null;
  const id = randomUUID();
  const everything = allTicks(
    source.tree,
    (await allItems(packageId)).map((i) => i.id),
  );
  await write(async (tx) => {
    await tx.insert(transfers).values({
      id,
      title: source.tree!.title || source.name,
      packageId,
      target: 'qti2.1',
      createdAt: Date.now(),
    });
    for (let at = 0; at < everything.length; at += 500) {
      await tx.insert(ticks).values(everything.slice(at, at + 500).map((t) => ({ ...t, transferId: id })));
    }
  });
  return id;
}

/** Quizzes, banks, links, and the items that stand in neither. */
function allTicks(tree: Tree, itemIds: readonly string[]): Tick[] {
  const held = new Set([...tree.quizzes.flatMap(quizItems), ...tree.banks.flatMap((b) => b.items)]);
  return [
    ...tree.quizzes.map((q): Tick => ({ kind: 'quiz', nodeId: q.id })),
    ...tree.banks.map((b): Tick => ({ kind: 'bank', nodeId: b.id })),
    ...tree.links.map((l): Tick => ({ kind: 'link', nodeId: l.id })),
    ...tree.rubrics.map((r): Tick => ({ kind: 'rubric', nodeId: r.id })),
    ...itemIds.filter((id) => !held.has(id)).map((nodeId): Tick => ({ kind: 'item', nodeId })),
  ];
}

/** Sets ticks to exactly these. */
export async function setTicks(id: string, given: readonly Tick[]): Promise<void> {
  const distinct = [...new Map(given.map((t) => [`${t.kind} ${t.nodeId}`, t])).values()];
  await write(async (tx) => {
    await tx.delete(ticks).where(eq(ticks.transferId, id));
    for (let at = 0; at < distinct.length; at += 500) {
      await tx.insert(ticks).values(distinct.slice(at, at + 500).map((t) => ({ ...t, transferId: id })));
    }
  });
}

export async function rename(id: string, title: string): Promise<void> {
  await write((tx) => tx.update(transfers).set({ title }).where(eq(transfers.id, id)));
}

/** Sets the format to write, and looks ahead again. */
export async function setTarget(id: string, target: Target): Promise<void> {
  await write((tx) => tx.update(transfers).set({ target }).where(eq(transfers.id, id)));
  await lookAhead(id);
}

/** Works out what the target cannot carry, unless that is under way. */
export async function lookAhead(id: string): Promise<void> {
  const { forecast } = await jobsFor(id);
  if (forecast?.state === 'queued' || forecast?.state === 'running') return;
  await enqueue('forecast', id);
}

/** Takes back what a transfer brought, unless it is just being sent. */
export async function enqueueUndo(id: string): Promise<boolean> {
  const { carry } = await jobsFor(id);
  if (carry?.state === 'queued' || carry?.state === 'running') return false;
  await enqueue('undo', id);
  return true;
}

export const send = (id: string): Promise<string> => enqueue('send', id);

/** Takes a package as what arrived, and compares. */
export async function arrive(id: string, packageId: string): Promise<void> {
  await write((tx) =>
    tx
      .update(transfers)
      .set({ arrivedPackageId: packageId, arrival: null, tally: null, comparedAt: null })
      .where(eq(transfers.id, id)),
  );
  await enqueue('compare', id);
}

export const parsedSent = (row: TransferRow): Sent | null =>
  row.sent ? (JSON.parse(row.sent) as Sent) : null;
export const parsedForecast = (row: TransferRow): Forecast | null =>
  row.forecast ? (JSON.parse(row.forecast) as Forecast) : null;
export const parsedArrival = (row: TransferRow): Arrival | null =>
  row.arrival ? (JSON.parse(row.arrival) as Arrival) : null;

/** Transfers that a package takes part in, so that its page can lead there. */
export async function transfersOf(packageId: string): Promise<{ id: string; title: string }[]> {
  return db
    .select({ id: transfers.id, title: transfers.title })
    .from(transfers)
    .where(eq(transfers.packageId, packageId))
    .orderBy(desc(transfers.createdAt))
    .limit(10);
}
