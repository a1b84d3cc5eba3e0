import { eq } from 'drizzle-orm';
import { speak, type LandingOverride, type Target } from '@alforja/core';
import { DEFAULT_OPTIONS, type Plan, type SystemAbout, type TransferOptions } from '../../shared/courses.ts';
import type { Forecast, Tick } from '../../shared/types.ts';
import { write } from '../db/client.ts';
import { transfers } from '../db/schema.ts';
import { courseById, lookById } from '../services/courses.ts';
import { systemById } from '../services/systems.ts';
import type { Handler, JobContext } from './context.ts';
import type { PlanResult } from './courseTasks.ts';
import { packageById } from '../services/packages.ts';
import { fileOf, ticksOf, transferOf } from './packageJobs.ts';
import { enqueue } from './queue.ts';

type TransferRow = typeof transfers.$inferSelect;

/** What a plan was made from; another key, and it has to be made again. */
export function planKey(transfer: TransferRow, ticks: readonly Tick[]): string {
  return JSON.stringify([
    ticks.map((t) => `${t.kind} ${t.nodeId}`).sort(),
    transfer.packageId,
    transfer.sourceSnapshot,
    transfer.destSnapshot,
    transfer.destCourse,
    transfer.options,
    transfer.overrides,
    transfer.targetChosen ? transfer.target : null,
  ]);
}

export const optionsOf = (transfer: Pick<TransferRow, 'options'>): TransferOptions =>
  transfer.options ? (JSON.parse(transfer.options) as TransferOptions) : DEFAULT_OPTIONS;
export const overridesOf = (transfer: Pick<TransferRow, 'overrides'>): Record<string, LandingOverride> =>
  JSON.parse(transfer.overrides) as Record<string, LandingOverride>;

/** Everything that a plan, the writing and the comparing of a transfer between courses need. */
export async function matterOf(transfer: TransferRow) {
  const file = await fileOf(transfer.packageId);
  const source = transfer.sourceSnapshot ? await lookById(transfer.sourceSnapshot) : null;
  const dest = transfer.destSnapshot ? await lookById(transfer.destSnapshot) : null;
  const there = dest ? await fileOf(dest.packageId) : null;
  const [from, to] = [
    transfer.sourceCourse ? await courseById(transfer.sourceCourse) : null,
    transfer.destCourse ? await courseById(transfer.destCourse) : null,
  ];
  const system = to ? await systemById(to.systemId) : null;
  const tree = (await packageById(transfer.packageId))?.tree;
  if (!file || !tree || !dest || !there || !to || !system) return null;
  const about = JSON.parse(system.about) as SystemAbout;
  return {
    file,
    tree,
    source,
    dest,
    there,
    from,
    to,
    about,
    ticks: await ticksOf(transfer.id),
    options: optionsOf(transfer),
  };
}
export type Matter = NonNullable<Awaited<ReturnType<typeof matterOf>>>;

export async function makePlan(
  transfer: TransferRow,
  matter: Matter,
  { work }: JobContext,
): Promise<PlanResult> {
  const { file, source, dest, there, from, to, about, ticks, options } = matter;
  const asked = {
    file,
    ticks,
    outline: source?.outline ?? null,
    there: { file: there, outline: dest.outline },
    options,
    overrides: overridesOf(transfer),
    fromTerm: from?.termStart || null,
    toTerm: to.termStart || null,
    takes: about.takes,
    rubrics: about.rubrics ?? null,
    target: transfer.targetChosen ? (transfer.target as Target) : null,
  };
  const { result } = await work({ kind: 'plan', asked });
  const plan: Plan = { key: planKey(transfer, ticks), landings: result.landings, troubles: result.troubles };
  const ahead: Forecast = { target: result.target, ticks, findings: result.findings };
  await write((tx) =>
    tx
      .update(transfers)
      .set({ plan: JSON.stringify(plan), forecast: JSON.stringify(ahead), target: result.target })
      .where(eq(transfers.id, transfer.id)),
  );
  return result;
}

/** Works out how what is ticked lands, and what the way there loses. */
export const plan: Handler = {
  async run(subject, context) {
    const transfer = await transferOf(subject);
    const matter = transfer && (await matterOf(transfer));
    if (!transfer || !matter) throw new Error('The destination has not been looked at yet.');
    await makePlan(transfer, matter, context);
    // Something was changed meanwhile: that has its own plan.
    const now = (await transferOf(subject))!;
    if (planKey(now, await ticksOf(subject)) !== planKey(transfer, matter.ticks))
      await enqueue('plan', subject);
  },
  async failed(subject, failure) {
    await write((tx) =>
      tx
        .update(transfers)
        .set({
          plan: JSON.stringify({
            key: 'failed',
            landings: [],
            troubles: [speak(failure).message],
          } satisfies Plan),
        })
        .where(eq(transfers.id, subject)),
    );
  },
};
