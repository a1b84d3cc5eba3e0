import { eq } from 'drizzle-orm';
import { landingKey, leftOut, type Landing } from '@alforja/core';
import type { Decision, Plan, Run } from '../../shared/courses.ts';
import type { Arrival, Sent } from '../../shared/types.ts';
import { write } from '../db/client.ts';
import { transfers } from '../db/schema.ts';
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

/** Compares plan and destination, and keeps what came of it. */
export async function compareBack(
  transfer: typeof transfers.$inferSelect,
  { file, source, options, ticks }: Matter,
  run: Run,
  { work }: JobContext,
): Promise<string> {
  const { landings } = JSON.parse(transfer.plan!) as Plan;
  const back = (await lookById(transfer.backSnapshot!))!;
  const arrived = (await fileOf(back.packageId))!;
  const { created, notes } = run;
  const { result } = await work({
    kind: 'arrival',
    asked: {
      file,
      ticks,
      outline: source?.outline ?? null,
      landings,
      options,
      arrived: { file: arrived, outline: back.outline },
      created,
      about: aboutOf(landings, created),
    },
  });
  const { troubles, landed, ...compared } = result;
  const sent = transfer.sent ? (JSON.parse(transfer.sent) as Sent) : null;
  const arrival: Arrival = {
    ...compared,
    sentSha256: sent?.sha256 ?? '',
    arrivedSha256: arrived.sha256,
    landing: {
      troubles,
      landed,
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
