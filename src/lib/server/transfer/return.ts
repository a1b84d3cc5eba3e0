import { leftOut, tallyOf } from '@alforja/core';
import type { Arrival } from '../../shared/transfers.ts';
import { takeSnapshot } from '../library/courses.ts';
import { ensureRead } from '../library/reading.ts';
import { removeStrayArrivalRows } from '../store/arrivalRows.ts';
import { write } from '../store/database.ts';
import { packageById, packageFile, packageHead } from '../store/packages.ts';
import { setOutline } from '../store/snapshots.ts';
import { changeTransfer } from '../store/transfers.ts';
import type { ArrivalInput } from '../work/arriving.ts';
import { plannedLandings } from './import.ts';
import { arrivalInput, spokenOf } from './arrivalInput.ts';
import { sendingError, type SendContext } from './sendContext.ts';
import { Superseded, union } from './sending.ts';

/** Reads what arrived: the file that came back, or what the plan speaks of in the course. */
export function readBack(context: SendContext): Promise<string> {
  return context.destCourse === null ? readFile(context) : readCourse(context, context.destCourse);
}

async function readFile(context: SendContext): Promise<string> {
  const { arrivedPackageId } = await context.transfer();
  if (arrivedPackageId === null) throw sendingError('Nothing has come back yet.');
  await ensureRead(arrivedPackageId, context.job);
  const held = (await packageHead(arrivedPackageId))!;
  return `${held.summary?.items ?? 0} items in ${held.name}`;
}

/** Reads back what the plan speaks of; the whole course where the export of single things leaves some out. */
async function readCourse(context: SendContext, dest: string): Promise<string> {
  const about = spokenOf(await plannedLandings(context), context.sending.created);
  let taken = await takeSnapshot(dest, context.job, { things: about, purpose: 'back' });
  await ensureRead(taken.packageId, context.job);
  const tree = (await packageById(taken.packageId))?.tree;
  const missing = leftOut(tree ?? { quizzes: [], banks: [] }, taken.outline, about);
  if (missing.length > 0) {
    const names = missing.map((t) => `“${t.title || 'without a name'}”`).join(', ');
    taken = await takeSnapshot(dest, context.job, { purpose: 'back' });
    await ensureRead(taken.packageId, context.job);
    await context.note(
      `The partial export left out ${names} and froze its draws; the whole course was read back instead.`,
    );
  }
  await write((tx) =>
    changeTransfer(tx, context.id, () => ({
      arrivedPackageId: taken.packageId,
      backSnapshot: taken.id,
    })),
  );
  return `${about.length} things, as the destination gives them`;
}

const arrivalAsked = async (context: SendContext): Promise<ArrivalInput> =>
  arrivalInput(await context.transfer(), await context.parts(), context.sending.created);

/**
 * Attaches the rubrics that came to the items that came, as they hung together in the source; what hangs
 * there stays. What was attached before is kept, so that undoing can give it back.
 */
export async function attach(context: SendContext): Promise<string> {
  if (!(await plannedLandings(context)).some((l) => l.kind === 'rubric')) return 'no rubrics in it';
  const { attach: wanted, release, planned } = await context.job.work('attach', await arrivalAsked(context));
  const connector = await context.connector();
  const keep = (thing: string, before: readonly string[]): Promise<void> =>
    context.save((s) =>
      s.attached.some((a) => a.thing === thing) ? s : { ...s, attached: [...s.attached, { thing, before }] },
    );
  for (const { thing, before, to } of wanted) {
    context.job.signal.throwIfAborted();
    if (!context.sending.created.includes(thing)) await keep(thing, before);
    await connector.change(context.classId, thing, { attachedTo: to });
  }
  for (const { thing, before } of release) {
    context.job.signal.throwIfAborted();
    await keep(thing, before);
    await connector.change(context.classId, thing, { attachedTo: [] });
  }
  if (wanted.length + release.length > 0) {
    const { backSnapshot } = await context.transfer();
    const outline = await connector.outline(context.classId);
    await write((tx) => setOutline(tx, backSnapshot!, outline));
  }
  return planned === 0 ? 'nothing to attach them to' : `${wanted.length} of ${planned} had to be attached`;
}

/** Compares plan and destination, and keeps what came of it. */
export async function compare(context: SendContext): Promise<string> {
  const asked = await arrivalAsked(context);
  const seamId = context.sending.id;
  const found = await context.job.work('compare', { ...asked, seamId });
  const arrived = await packageFile(asked.arrivedPackageId);
  const { sent } = await context.transfer();
  const arrival: Arrival = {
    ...found,
    sentSha256: sent?.parts[0]?.sha256 ?? '',
    arrivedSha256: arrived!.sha256,
    notes: union(union(context.sending.notes, context.retries), found.notes),
  };
  await write((tx) =>
    changeTransfer(tx, context.id, ({ sending, decisions, record }) => {
      if (sending?.id !== context.sending.id) throw new Superseded();
      const at = Date.now();
      const tally = tallyOf(
        arrival,
        decisions.map((d) => d.key),
      );
      const by = sending.checkedBy ?? sending.by;
      return {
        arrival,
        seamId,
        comparedAt: at,
        tally,
        record: [...record, { act: 'checked', at, by, tally }],
      };
    }),
  );
  while (await write(removeStrayArrivalRows));
  const { intact, altered, missing, extra } = found.comparison.counts;
  return `${intact} intact, ${altered} altered, ${missing} missing, ${extra} extra`;
}
