import { createHash, randomUUID } from 'node:crypto';
import { finding, knownFor, READER_VERSION, ruleHoldsFor } from '@alforja/core';
import type { PackageSummary } from '../../shared/types.ts';
import { JobFailure, type Handler, type JobContext } from '../runner/handler.ts';
import { db, unfenced, write } from '../store/database.ts';
import { queueJob, queueJobAnew, underWay } from '../store/jobs.ts';
import { standingOf, standingSteps, stepsOf } from '../store/editSteps.ts';
import { knownReadings, type Known } from '../store/known.ts';
import {
  noteFailure,
  noteReading,
  packageFile,
  readingBases,
  readingBasis,
  showReading,
} from '../store/packages.ts';
import { releaseReadings, sweepReadings } from '../store/readings.ts';
import { layerOf, noteLayer } from './layers.ts';

/**
 * One reading of a package, kept by its bytes, the reader's version and the rules: what screens and transfers
 * share.
 */

const TABLES: ReadonlySet<string> = new Set(['csv', 'xlsx']);

/**
 * What a reading of a package like this rests on: only the rules that hold for it count, and the edits over it.
 * @param steps ids of the steps of edits that stand, in order
 */
export function basisOf(
  { origin, format, looks = [] }: Pick<PackageSummary, 'origin' | 'format' | 'looks'>,
  { rules, layouts, known }: Known,
  steps: readonly string[] = [],
): string {
  const holding = rules
    .filter((r) => ruleHoldsFor(r, origin))
    .map(({ origin: of, label, means }) => [of, label, means]);
  const tables = TABLES.has(format.container) ? layouts : [];
  const documents = looks.flatMap((l) => knownFor(l, known)?.layout ?? []);
  const parts = [holding, tables, ...(documents.length > 0 ? [documents] : [])];
  return createHash('sha256')
    .update(JSON.stringify([READER_VERSION, ...parts, ...(steps.length > 0 ? [steps] : [])]))
    .digest('hex');
}

/** Reads a package and shows it by what was read; until then it is shown as it was, or not at all. */
export async function readPackage(id: string, { id: jobId, work, signal }: JobContext): Promise<void> {
  const file = await packageFile(id);
  if (!file) throw new Error('The package is gone.');
  const now = await knownReadings();
  const layer = layerOf(await stepsOf(id));
  const reading = { id: randomUUID(), packageId: id, jobId };
  // Whatever becomes of it: what the package was shown by before is removed, or what came of this until it failed.
  const tidy = (): Promise<void> =>
    unfenced(async () => {
      await write((tx) => releaseReadings(tx, reading));
      await sweepReadings();
    });
  const done = await work('read', {
    sha256: file.sha256,
    name: file.name,
    ...now,
    layer: layer.edits,
    steps: layer.standing,
    reading,
  }).catch(async (error: unknown) => {
    // What was stopped is found by the next who sweeps: nothing runs it then.
    if (!signal.aborted) await tidy();
    throw error;
  });
  await write(async (tx) => {
    const { summary, changed } = done;
    const basis = basisOf(summary, now, layer.standing);
    await showReading(tx, id, { readingId: reading.id, basis, summary, changed });
    await noteLayer(tx, id, layer, done.layer);
    // What was changed while it was being read is read next.
    if (basis !== basisOf(summary, now, await standingOf(id, tx))) await queueJobAnew(tx, 'read', id);
  });
  await tidy();
}

/** Reads a package, unless it has been read as it stands now: by other work, or before this was interrupted. */
export const read: Handler = {
  async run(id, context) {
    if (await isCurrent(id)) return;
    await readPackage(id, context);
  },
  failed: noteFailure,
  stopped: (tx, id) => noteFailure(tx, id, finding('reading-stopped', 'error', {})),
};

/** Whether a package is shown as it would be read now. */
const isCurrent = async (id: string): Promise<boolean> =>
  (await packageFile(id))?.state === 'ready' && !(await isBehind(id));

/** Whether a package is shown without edits that stand over it, or with some that do not. */
async function isBehind(id: string): Promise<boolean> {
  const shown = await readingBasis(id);
  if (shown === null) return true;
  return shown.basis !== basisOf(shown.summary, await knownReadings(), await standingOf(id));
}

/** Reads a package within another job, unless it has been read as it stands now. */
export async function ensureRead(id: string, context: JobContext): Promise<void> {
  if (await isCurrent(id)) return;
  try {
    await readPackage(id, context);
  } catch (error) {
    if (error instanceof JobFailure) await write((tx) => noteFailure(tx, id, error.finding));
    throw error;
  }
}

/**
 * Packages that a newer reader or other rules would read otherwise are read anew, when nothing else waits.
 */
export async function readAnew(): Promise<void> {
  const now = await knownReadings();
  const steps = await standingSteps();
  const outdated = (await readingBases()).filter(
    ({ id, basis, summary }) => basis !== basisOf(summary, now, steps.get(id)),
  );
  if (outdated.length === 0) return;
  await write(async (tx) => {
    for (const { id } of outdated) await queueJob(tx, 'read', id, { background: true });
  });
}

/** Reads a package anew at once, also one that could not be read; one that is shown stays as it was until then. */
export const readAgain = (id: string): Promise<void> =>
  write(async (tx) => {
    await noteReading(tx, id);
    await queueJob(tx, 'read', id);
  });

/** Work that reads packages, of its own or on its way. */
const READING = ['read', 'snapshot', 'plan', 'send', 'batch'] as const;

/** Whether no work is under way that reads packages: one that says it is being read has been broken off. */
export const nobodyReads = async (): Promise<boolean> => !(await underWay(db, READING));
