import {
  speak,
  TARGETS,
  tickId,
  type LandingOverride,
  type Layer,
  type Target,
  type Tick,
} from '@alforja/core';
import type { Plan, TransferOptions } from '../../shared/transfers.ts';
import { requestSnapshot } from '../library/courses.ts';
import { appliedEdits } from '../library/layers.ts';
import { ensureRead } from '../library/reading.ts';
import type { Handler, JobContext } from '../runner/handler.ts';
import { courseById } from '../store/courses.ts';
import { write } from '../store/database.ts';
import { standingOf } from '../store/editSteps.ts';
import { latestJobs, queueJob } from '../store/jobs.ts';
import { packageFile } from '../store/packages.ts';
import { latestSnapshot, snapshotById } from '../store/snapshots.ts';
import { systemById } from '../store/systems.ts';
import { setTicks, ticksOf } from '../store/ticks.ts';
import { changeTransfer, transferById, type Transfer, type TransferChange } from '../store/transfers.ts';
import type { Takes } from '../work/planning.ts';
import { sourceOf, type TransferSource } from './source.ts';
import type { CourseListing, Snapshot } from '../../shared/courses.ts';

/** What a plan was made from; another basis, and it has to be made again. */
async function planBasis(transfer: Transfer): Promise<string> {
  const steps = await standingOf(transfer.packageId);
  return JSON.stringify([
    (await ticksOf(transfer.id)).map(tickId).sort(),
    transfer.packageId,
    ...(steps.length > 0 ? [steps] : []),
    transfer.sourceSnapshot,
    transfer.destSnapshot,
    transfer.destCourse,
    transfer.options,
    transfer.overrides,
    transfer.targetChosen ? transfer.target : null,
  ]);
}

/** A file can be of any format; rubrics go beside it, as CASE. */
const FILE_TAKES: Takes = { formats: TARGETS, rubrics: 'case1.0' };

/** Everything that planning, writing and comparing a transfer need. */
export interface TransferParts {
  readonly transfer: Transfer;
  readonly source: TransferSource;
  /** The edits that stand over the source. */
  readonly layer: Layer;
  /** The source file, for the files that go along. */
  readonly file: { readonly sha256: string; readonly name: string };
  readonly from: CourseListing | null;
  /** Null for a file. */
  readonly dest: { readonly course: CourseListing; readonly snapshot: Snapshot } | null;
  readonly takes: Takes;
  readonly ticks: readonly Tick[];
}

/** @returns null where source or destination are not at hand: not read, not listed, or no snapshot taken */
export async function partsOf(transfer: Transfer): Promise<TransferParts | null> {
  const source = await sourceOf(transfer);
  const stored = await packageFile(transfer.packageId);
  if (!source || !stored) return null;
  const common = {
    transfer,
    source,
    layer: await appliedEdits(transfer.packageId),
    file: { sha256: stored.sha256, name: stored.name },
    from: transfer.sourceCourse ? await courseById(transfer.sourceCourse) : null,
    ticks: await ticksOf(transfer.id),
  };
  if (transfer.destCourse === null) return { ...common, dest: null, takes: FILE_TAKES };
  const course = await courseById(transfer.destCourse);
  const snapshot = transfer.destSnapshot ? await snapshotById(transfer.destSnapshot) : null;
  const system = course ? await systemById(course.systemId) : null;
  if (!course || !snapshot || !system) return null;
  const takes = { formats: system.about.takes, rubrics: system.about.rubrics };
  return { ...common, dest: { course, snapshot }, takes };
}

/** What of a transfer's source was chosen, as worker threads ask for it. */
export const selectionOf = ({ transfer, source, layer, ticks, dest }: TransferParts) => ({
  packageId: transfer.packageId,
  ticks,
  outline: source.outline,
  layer,
  toCourse: dest !== null,
});

/** Works out the plan of a transfer as it stands, and keeps it. */
export async function makePlan(parts: TransferParts, { work }: JobContext): Promise<Plan> {
  const { transfer, dest, from, takes } = parts;
  const basis = await planBasis(transfer);
  const made = await work('plan', {
    ...selectionOf(parts),
    there: dest && { packageId: dest.snapshot.packageId, outline: dest.snapshot.outline },
    options: transfer.options,
    overrides: transfer.overrides,
    fromTerm: from?.termStart || null,
    toTerm: dest?.course.termStart || null,
    takes,
    target: transfer.targetChosen ? transfer.target : null,
    allFormats: transfer.batchId === null,
  });
  const plan: Plan = { ...made, basis };
  await write((tx) =>
    changeTransfer(tx, transfer.id, (before) => ({
      plan,
      // A format chosen meanwhile is not undone; its own plan follows.
      ...(before.targetChosen ? {} : { target: plan.target }),
    })),
  );
  return plan;
}

/** Works out how what is ticked lands, and what the way there loses. */
export const plan: Handler = {
  async run(id, context) {
    const transfer = await transferById(id);
    // What was put right a moment ago counts.
    if (transfer) await ensureRead(transfer.packageId, context);
    const parts = transfer && (await partsOf(transfer));
    if (!parts) throw new Error('Source or destination have not been read yet.');
    const { basis } = await makePlan(parts, context);
    // Something was changed meanwhile: that has its own plan.
    const now = (await transferById(id))!;
    if ((await planBasis(now)) !== basis) await plan.run(id, context);
  },
  failed(tx, id, failure) {
    const troubles = [speak(failure).message];
    return changeTransfer(tx, id, ({ target }) => ({
      plan: { basis: 'failed', landings: [], target, findings: [], repairs: [], losses: [], troubles },
    }));
  },
};

/** The plan as it stands; null while it has to be made, which is then begun. */
export async function planNow(transfer: Transfer): Promise<Plan | null> {
  const { plan: held } = transfer;
  if (held?.basis === (await planBasis(transfer))) return held;
  // One that failed is not tried again by itself, or the page would never come to rest.
  if ((await latestJobs(transfer.id)).plan?.state === 'failed') return held;
  if (transfer.destCourse !== null && transfer.destSnapshot === null) await adoptSnapshot(transfer);
  else await write((tx) => queueJob(tx, 'plan', transfer.id));
  return null;
}

/** The plan as it stands, without beginning another. */
export async function currentPlan(transfer: Transfer): Promise<Plan | null> {
  const { plan: held } = transfer;
  return held?.basis === (await planBasis(transfer)) ? held : null;
}

/** Rests the plan on the latest snapshot of the destination; has one taken first where there is none. */
async function adoptSnapshot({ id, destCourse }: Transfer): Promise<void> {
  const taken = await latestSnapshot(destCourse!);
  if (!taken) return void (await requestSnapshot(destCourse!));
  if ((await packageFile(taken.packageId))?.state !== 'ready') return;
  await write(async (tx) => {
    await changeTransfer(tx, id, () => ({ destSnapshot: taken.id }));
    await queueJob(tx, 'plan', id);
  });
}

/** Changes what a plan is made from, and has it made again. */
const replan = (id: string, change: (before: Transfer) => TransferChange): Promise<void> =>
  write(async (tx) => {
    await changeTransfer(tx, id, change);
    await queueJob(tx, 'plan', id);
  });

export const setOptions = (id: string, options: TransferOptions): Promise<void> =>
  replan(id, () => ({ options }));

/** Sets how one thing lands; `null` gives it back to what is proposed. */
export const setOverride = (id: string, landing: string, change: LandingOverride | null): Promise<void> =>
  replan(id, ({ overrides }) => {
    const others = Object.entries(overrides).filter(([key]) => key !== landing);
    const before = Object.hasOwn(overrides, landing) ? overrides[landing] : {};
    const mine = change === null ? [] : [[landing, { ...before, ...change }] as const];
    return { overrides: Object.fromEntries([...others, ...mine]) };
  });

/** The format chosen by hand, or null for the one that loses least. */
export const setTarget = (id: string, target: Target | null): Promise<void> =>
  replan(id, () => (target === null ? { targetChosen: false } : { target, targetChosen: true }));

/** What is ticked; the plan is made again when somebody asks for it. */
export const chooseTicks = (id: string, ticks: readonly Tick[]): Promise<void> =>
  write((tx) => setTicks(tx, id, ticks));

export const rename = (id: string, title: string): Promise<unknown> =>
  write((tx) => changeTransfer(tx, id, () => ({ title })));
