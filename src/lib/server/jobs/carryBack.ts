import { eq } from 'drizzle-orm';
import { landingKey, leftOut, type Landing } from '@alforja/core';
import { partsOfCourse, type Decision, type Plan, type Run } from '../../shared/courses.ts';
import type { Arrival, Sent } from '../../shared/types.ts';
import type { Connector } from '../connectors/types.ts';
import { write } from '../db/client.ts';
import { snapshots, transfers } from '../db/schema.ts';
import { tallyOf } from '../services/differences.ts';
import { lookById } from '../services/courses.ts';
import { packageById } from '../services/packages.ts';
import type { JobContext } from './context.ts';
import { ensureRead, fetchLook } from './courses.ts';
import { fileOf } from './packageJobs.ts';
import type { Matter } from './plan.ts';

/** Things of the destination that a plan speaks of: what was made there, and what stood there already. */
export const aboutOf = (landings: readonly Landing[], created: readonly string[]): string[] => [
  ...new Set([
    ...created,
    ...landings.flatMap((l) => (l.action === 'skip' && l.there !== null ? [l.there] : [])),
  ]),
];

/** Reads back what the plan speaks of; the whole course where the export of single things leaves some out. */
export async function readBack(
  id: string,
  dest: string,
  landings: readonly Landing[],
  created: readonly string[],
  context: JobContext,
): Promise<{ says: string; note: string | null }> {
  const about = aboutOf(landings, created);
  let look = await fetchLook(dest, context, { things: about, purpose: 'back' });
  await ensureRead(look.packageId, context);
  const { tree } = (await packageById(look.packageId))!;
  const missing = leftOut(tree ?? { quizzes: [], banks: [] }, look.outline, about);
  let note: string | null = null;
  if (missing.length > 0) {
    const names = missing.map((t) => `“${t.title || 'without a name'}”`).join(', ');
    note = `Asked for single things, the destination left out ${names} and fixed what is drawn from there; the whole course was read back instead.`;
    look = await fetchLook(dest, context, { purpose: 'back' });
    await ensureRead(look.packageId, context);
  }
  await write((tx) =>
    tx
      .update(transfers)
      .set({ arrivedPackageId: look.packageId, backSnapshot: look.id })
      .where(eq(transfers.id, id)),
  );
  return { says: `${about.length} things, as the destination gives them`, note };
}

/** Both sides of an arrival: the plan, and what was read back. */
async function arrivalAsked(
  transfer: typeof transfers.$inferSelect,
  { file, source, options, ticks }: Matter,
  created: readonly string[],
) {
  const { landings } = JSON.parse(transfer.plan!) as Plan;
  const back = (await lookById(transfer.backSnapshot!))!;
  const arrived = { file: (await fileOf(back.packageId))!, outline: back.outline };
  const about = aboutOf(landings, created);
  return {
    back,
    asked: { file, ticks, outline: source?.outline ?? null, landings, options, arrived, created, about },
  };
}

/**
 * Attaches the rubrics that came to the items that came, as they hung together in the source; what hangs there stays.
 * @param keep called before each, so that undoing knows what was attached before
 */
export async function attachBack(
  transfer: typeof transfers.$inferSelect,
  matter: Matter,
  created: readonly string[],
  connector: Connector,
  { work, signal }: JobContext,
  keep: (thing: string, before: readonly string[]) => Promise<void>,
): Promise<string> {
  const { landings } = JSON.parse(transfer.plan!) as Plan;
  if (!landings.some((l) => l.kind === 'rubric')) return 'no rubrics in it';
  const { back, asked } = await arrivalAsked(transfer, matter, created);
  const { result } = await work({ kind: 'attach', asked });
  const { classId } = partsOfCourse(transfer.destCourse!);
  for (const { thing, before, to } of result.attach) {
    signal.throwIfAborted();
    if (!created.includes(thing)) await keep(thing, before);
    await connector.change(classId, thing, { attachedTo: to });
  }
  for (const { thing, before } of result.release) {
    signal.throwIfAborted();
    await keep(thing, before);
    await connector.change(classId, thing, { attachedTo: [] });
  }
  if (result.attach.length + result.release.length > 0) {
    const outline = JSON.stringify(await connector.outline(classId));
    await write((tx) => tx.update(snapshots).set({ outline }).where(eq(snapshots.id, back.id)));
  }
  return result.planned === 0
    ? 'nothing to attach them to'
    : `${result.attach.length} of ${result.planned} had to be attached`;
}

/** Compares plan and destination, and keeps what came of it. */
export async function compareBack(
  transfer: typeof transfers.$inferSelect,
  matter: Matter,
  run: Run,
  { work }: JobContext,
): Promise<string> {
  const { landings } = JSON.parse(transfer.plan!) as Plan;
  const { created, notes } = run;
  const { back, asked } = await arrivalAsked(transfer, matter, created);
  const { arrived } = asked;
  const { result } = await work({ kind: 'arrival', asked });
  const { troubles, landed, attachments, ...compared } = result;
  const sent = transfer.sent ? (JSON.parse(transfer.sent) as Sent) : null;
  const arrival: Arrival = {
    ...compared,
    sentSha256: sent?.sha256 ?? '',
    arrivedSha256: arrived.file.sha256,
    landing: {
      troubles,
      landed,
      attachments,
      names: Object.fromEntries(landings.map((l) => [landingKey(l), l.name])),
      outline: back.outline,
      notes,
    },
  };
  const decisions = JSON.parse(transfer.decisions) as Decision[];
  await write((tx) =>
    tx
      .update(transfers)
      .set({
        arrival: JSON.stringify(arrival),
        tally: JSON.stringify(tallyOf(arrival, decisions)),
        comparedAt: Date.now(),
      })
      .where(eq(transfers.id, transfer.id)),
  );
  const { intact, altered, missing, extra } = compared.comparison.counts;
  return `${intact} intact, ${altered} altered, ${missing} missing, ${extra} extra`;
}
