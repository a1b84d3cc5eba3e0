import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { LandingOverride } from '@alforja/core';
import { DEFAULT_OPTIONS, type Decision, type Plan, type TransferOptions } from '../../shared/courses.ts';
import type { Tick } from '../../shared/types.ts';
import { write } from '../db/client.ts';
import { ticks, transfers } from '../db/schema.ts';
import { optionsOf, overridesOf, planKey } from '../jobs/plan.ts';
import { enqueue } from '../jobs/queue.ts';
import { newRun, runOf, saveRun, type RunOrder } from '../jobs/run.ts';
import { courseById, latestLook } from './courses.ts';
import { packageById } from './packages.ts';
import { enqueueOnce, systemById } from './systems.ts';
import { tallyOf } from './differences.ts';
import { jobsFor, parsedArrival, ticksFor, transferById, type TransferRow } from './transfers.ts';

/** Starts a transfer into a course, from another course (looked into) or from a package in hand. */
export async function startCourseTransfer(
  from: { readonly courseId: string } | { readonly packageId: string },
  destCourse: string,
  over: {
    readonly ticks?: readonly Tick[];
    readonly options?: TransferOptions;
    readonly batchId?: string;
    readonly title?: string;
  } = {},
): Promise<string | null> {
  const source = 'courseId' in from ? await latestLook(from.courseId) : null;
  const packageId = 'courseId' in from ? source?.packageId : from.packageId;
  const held = packageId ? await packageById(packageId) : null;
  const to = await courseById(destCourse);
  if (!held?.tree || !to) return null;
  const there = await latestLook(destCourse);
  const course = 'courseId' in from ? await courseById(from.courseId) : null;
  const id = randomUUID();
  await write(async (tx) => {
    await tx.insert(transfers).values({
      id,
      title:
        over.title ??
        `${course ? `${course.title}, ${course.term}` : held.tree!.title || held.name} → ${course?.title === to.title ? '' : `${to.title}, `}${to.term}, section ${to.section}`,
      packageId: held.id,
      target: 'qti2.1',
      createdAt: Date.now(),
      sourceCourse: 'courseId' in from ? from.courseId : null,
      destCourse,
      sourceSnapshot: source?.id ?? null,
      destSnapshot: there?.id ?? null,
      options: JSON.stringify(over.options ?? DEFAULT_OPTIONS),
      batchId: over.batchId ?? null,
    });
    const given = over.ticks ?? [];
    for (let at = 0; at < given.length; at += 500)
      await tx.insert(ticks).values(given.slice(at, at + 500).map((t) => ({ ...t, transferId: id })));
  });
  return id;
}

/** The same choice into another course: from a practice course into the real one, mostly. */
export async function sendElsewhere(id: string, destCourse: string): Promise<string | null> {
  const transfer = await transferById(id);
  if (!transfer) return null;
  const from = transfer.sourceCourse
    ? { courseId: transfer.sourceCourse }
    : { packageId: transfer.packageId };
  const made = await startCourseTransfer(from, destCourse, {
    ticks: await ticksFor(id),
    options: optionsOf(transfer),
  });
  if (made === null) return null;
  // Names and dates set by hand go along; sections and what is there already are another course's.
  const kept = Object.fromEntries(
    Object.entries(overridesOf(transfer)).map(([key, { name, opens, closes, hidden }]) => [
      key,
      JSON.parse(JSON.stringify({ name, opens, closes, hidden })) as LandingOverride,
    ]),
  );
  await write((tx) =>
    tx
      .update(transfers)
      .set({ overrides: JSON.stringify(kept) })
      .where(eq(transfers.id, made)),
  );
  return made;
}

/** The plan as it stands; null while it has to be made, which is then begun. */
export async function planNow(transfer: TransferRow): Promise<Plan | null> {
  const given = await ticksFor(transfer.id);
  const plan = transfer.plan ? (JSON.parse(transfer.plan) as Plan) : null;
  if (plan?.key === planKey(transfer, given)) return plan;
  // One that failed is not tried again by itself, or the page would never come to rest.
  if ((await jobsFor(transfer.id)).plan?.state === 'failed') return plan;
  if (transfer.destSnapshot !== null) await enqueueOnce('plan', transfer.id);
  else await freshDestination(transfer);
  return null;
}

/** Takes the latest look at the destination as what the plan rests on; looks there first if nobody has. */
async function freshDestination(transfer: TransferRow): Promise<void> {
  const look = await latestLook(transfer.destCourse!);
  if (!look) return enqueueOnce('fetch', transfer.destCourse!);
  if ((await packageById(look.packageId))?.state !== 'ready') return;
  await write((tx) =>
    tx.update(transfers).set({ destSnapshot: look.id }).where(eq(transfers.id, transfer.id)),
  );
  await enqueueOnce('plan', transfer.id);
}

const update = (id: string, values: Partial<typeof transfers.$inferInsert>): Promise<unknown> =>
  write((tx) => tx.update(transfers).set(values).where(eq(transfers.id, id)));

export async function setOptions(transfer: TransferRow, options: TransferOptions): Promise<void> {
  await update(transfer.id, { options: JSON.stringify(options) });
  await enqueue('plan', transfer.id);
}

/** Sets how one thing lands; `null` gives it back to what is proposed. */
export async function setOverride(
  transfer: TransferRow,
  key: string,
  change: LandingOverride | null,
): Promise<void> {
  const all = overridesOf(transfer);
  if (change === null) delete all[key];
  else all[key] = { ...all[key], ...change };
  await update(transfer.id, { overrides: JSON.stringify(all) });
  await enqueueOnce('plan', transfer.id);
}

/** The format chosen by hand, or null for the one that loses least. */
export async function setCourseTarget(transfer: TransferRow, target: string | null): Promise<void> {
  await update(transfer.id, target === null ? { targetChosen: false } : { target, targetChosen: true });
  await enqueueOnce('plan', transfer.id);
}

/** Whose token brings things into the destination. */
export async function whoSends(transfer: TransferRow): Promise<string> {
  const course = transfer.destCourse ? await courseById(transfer.destCourse) : null;
  const system = course ? await systemById(course.systemId) : null;
  return system ? (JSON.parse(system.about) as { user: { name: string } }).user.name : 'unknown';
}

/** Sends, goes on, sends again, or only checks; unless one is under way. */
export async function startRun(transfer: TransferRow, order: Omit<RunOrder, 'by'> = {}): Promise<void> {
  const { carry } = await jobsFor(transfer.id);
  if (carry?.state === 'queued' || carry?.state === 'running') return;
  await saveRun(transfer.id, newRun(runOf(transfer), { ...order, by: await whoSends(transfer) }));
  await enqueue('carry', transfer.id);
}

export const decisionsOf = (transfer: Pick<TransferRow, 'decisions'>): Decision[] =>
  JSON.parse(transfer.decisions) as Decision[];

/** Takes differences as they are, for a reason; an empty reason opens them again. */
export async function decide(transfer: TransferRow, keys: readonly string[], reason: string): Promise<void> {
  const given = new Set(keys);
  const others = decisionsOf(transfer).filter((d) => !given.has(d.key));
  const by = await whoSends(transfer);
  const mine = reason === '' ? [] : keys.map((key): Decision => ({ key, reason, by, at: Date.now() }));
  const all = [...others, ...mine];
  const arrival = parsedArrival(transfer);
  await update(transfer.id, {
    decisions: JSON.stringify(all),
    ...(arrival ? { tally: JSON.stringify(tallyOf(arrival, all)) } : {}),
  });
}
