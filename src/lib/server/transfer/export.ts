import { own, type Tick } from '@alforja/core';
import { ConnectorError, type Connector, type RemoteJob } from '../connectors/types.ts';
import { takeSnapshot } from '../library/courses.ts';
import { ensureRead } from '../library/reading.ts';
import { write } from '../store/database.ts';
import { packageHead } from '../store/packages.ts';
import { ticksOf } from '../store/ticks.ts';
import { changeTransfer } from '../store/transfers.ts';
import type { SendContext } from './sendContext.ts';
import { union } from './sending.ts';
import { sourceOf } from './source.ts';

/** Both sides as they are now: the source may have changed since, and the destination too. */
export async function exportSides(context: SendContext): Promise<string> {
  const { sourceCourse, packageId } = await context.transfer();
  if (context.destCourse !== null) {
    await catchUp(context);
    await clearForResend(context);
  }
  const source = sourceCourse === null ? null : await takeSnapshot(sourceCourse, context.job);
  // Read before the transfer speaks of it: until then there is nothing to plan with, and no page to show.
  if (source) await ensureRead(source.packageId, context.job);
  const dest = context.destCourse === null ? null : await takeSnapshot(context.destCourse, context.job);
  await write((tx) =>
    changeTransfer(tx, context.id, () => ({
      ...(dest ? { destSnapshot: dest.id } : {}),
      ...(source ? { sourceSnapshot: source.id, packageId: source.packageId } : {}),
    })),
  );
  context.forget();
  if (source && source.packageId !== packageId) await noteChanges(context);
  if (!dest) return 'the course as it is now';
  return source ? 'both courses as they are now' : 'the destination as it is now';
}

/** Says that the source has changed since somebody chose, and what of the choice is no longer there. */
async function noteChanges(context: SendContext): Promise<void> {
  const source = await sourceOf(await context.transfer());
  const held = new Set([
    ...(source?.tree.quizzes ?? []).map((q) => `quiz ${q.id}`),
    ...(source?.tree.banks ?? []).map((b) => `bank ${b.id}`),
    ...(source?.tree.links ?? []).map((l) => `link ${l.id}`),
    ...(source?.tree.rubrics ?? []).map((r) => `rubric ${r.id}`),
  ]);
  const THINGS: ReadonlySet<Tick['kind']> = new Set(['quiz', 'bank', 'link', 'rubric']);
  const gone = (await ticksOf(context.id)).filter(
    (t) => THINGS.has(t.kind) && !held.has(`${t.kind} ${t.nodeId}`),
  );
  await context.note(
    'The source has changed since you chose; what is sent is what it holds now.',
    ...gone.map((t) => `A ${t.kind} you chose is no longer in the source (${t.nodeId}).`),
  );
}

/** What an earlier sending had asked for may have been done after it stopped. */
async function catchUp(context: SendContext): Promise<void> {
  const connector = await context.connector();
  for (const job of context.sending.unseen) {
    const done = await outcomeOf(connector, job, context.job.signal);
    await context.save((s) => ({
      ...s,
      created: union(s.created, done?.created ?? []),
      unseen: s.unseen.filter((u) => u !== job),
      notes: done ? s.notes : union(s.notes, [FORGOTTEN]),
    }));
  }
}

const FORGOTTEN =
  'The destination no longer knows of an earlier import of this transfer; what it may have made there is taken for what was there before.';

/** How something ended that the destination was asked for before; null where it no longer knows of it. */
async function outcomeOf(connector: Connector, job: string, signal: AbortSignal): Promise<RemoteJob | null> {
  try {
    const now = await connector.job(job);
    const underWay = now.state === 'queued' || now.state === 'running';
    return underWay ? await connector.waitFor(job, signal) : now;
  } catch (error) {
    if (error instanceof ConnectorError && error.status === 404) return null;
    throw error;
  }
}

/** What is sent again replaces what an earlier sending of this transfer made; only that. */
async function clearForResend(context: SendContext): Promise<void> {
  const { only, created } = context.sending;
  if (only === null || !('landings' in only)) return;
  const landed = (await context.transfer()).arrival?.landing?.landed ?? {};
  const connector = await context.connector();
  for (const landing of only.landings) {
    const thing = own(landed, landing);
    if (thing === undefined || !created.includes(thing)) continue;
    await connector.remove(context.classId, thing).catch((error: { status?: number }) => {
      if (error.status !== 404) throw error;
    });
    await context.save((s) => ({ ...s, created: s.created.filter((c) => c !== thing) }));
  }
}

/** Reads both sides, so that they can be planned with. */
export async function readSides(context: SendContext): Promise<string> {
  const { packageId } = await context.transfer();
  await ensureRead(packageId, context.job);
  if (context.destCourse === null) {
    const { summary } = (await packageHead(packageId))!;
    return `${summary?.items ?? 0} items with their keys and scoring`;
  }
  const { dest } = await context.parts();
  await ensureRead(dest!.snapshot.packageId, context.job);
  return 'items, keys and scoring of both';
}
