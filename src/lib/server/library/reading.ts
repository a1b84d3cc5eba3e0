import { createHash, randomUUID } from 'node:crypto';
import { finding, knownFor, READER_VERSION, ruleHoldsFor } from '@alforja/core';
import type { PackageSummary } from '../../shared/types.ts';
import { JobFailure, type Handler, type JobContext } from '../runner/handler.ts';
import { db, write } from '../store/database.ts';
import { insertItems, removeReading, removeStrayItems } from '../store/items.ts';
import { anyRuns, queueJob, queueJobAnew, underWay } from '../store/jobs.ts';
import { insertContainers } from '../store/containers.ts';
import { standingOf, standingSteps, stepsOf } from '../store/editSteps.ts';
import { knownReadings, type Known } from '../store/known.ts';
import {
  noteFailure,
  noteReading,
  packageFile,
  readingBases,
  readingBasis,
  readingsShown,
  showReading,
} from '../store/packages.ts';
import { layerOf, noteLayer } from './layers.ts';

/**
 * One reading of a package, kept by its bytes, the reader's version and the rules: what screens and transfers
 * share.
 */

/** Items are kept so many at a time, so that other changes get in between. */
const BATCH = 200;
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
export async function readPackage(id: string, { work, tell }: JobContext): Promise<void> {
  const file = await packageFile(id);
  if (!file) throw new Error('The package is gone.');
  const now = await knownReadings();
  const layer = layerOf(await stepsOf(id));
  const {
    tree,
    summary,
    families,
    rows,
    putRight,
    layer: done,
  } = await work('read', {
    sha256: file.sha256,
    name: file.name,
    ...now,
    layer: layer.edits,
  });
  const readingId = randomUUID();
  for (let at = 0; at < rows.length; at += BATCH) {
    await write((tx) => insertItems(tx, readingId, rows.slice(at, at + BATCH), at));
    tell('Storing items', Math.min(at + BATCH, rows.length), rows.length);
  }
  await write(async (tx) => {
    const basis = basisOf(summary, now, layer.standing);
    const shown = { ...putRight, steps: layer.standing };
    const before = await showReading(tx, id, { readingId, basis, tree, summary, families, putRight: shown });
    if (before) await removeReading(tx, before);
    await insertContainers(tx, readingId, tree);
    await noteLayer(tx, id, layer, done);
    // What was changed while it was being read is read next.
    if (basis !== basisOf(summary, now, await standingOf(id, tx))) await queueJobAnew(tx, 'read', id);
  });
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

/** Removes what readings left behind that were broken off, unless another process may be in the middle of one. */
export const removeBrokenReadings = (): Promise<void> =>
  write(async (tx) => {
    if (!(await anyRuns(tx))) await removeStrayItems(tx, await readingsShown(tx));
  });
