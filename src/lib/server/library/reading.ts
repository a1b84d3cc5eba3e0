import { createHash, randomUUID } from 'node:crypto';
import {
  READER_VERSION,
  ruleHoldsFor,
  type Finding,
  type ReadingRule,
  type TableLayout,
} from '@alforja/core';
import type { PackageSummary } from '../../shared/types.ts';
import { JobFailure, type Handler, type JobContext } from '../runner/handler.ts';
import { write } from '../store/database.ts';
import { storedPath } from '../store/files.ts';
import { insertItems, removeReading, removeStrayItems } from '../store/items.ts';
import { queueJobOnce } from '../store/jobs.ts';
import { insertContainers } from '../store/containers.ts';
import { noteFailure, packageFile, readingBases, readingsShown, showReading } from '../store/packages.ts';
import { listRules } from '../store/readingRules.ts';
import { listLayouts } from '../store/tableLayouts.ts';

/**
 * One reading of a package, kept by its bytes, the reader's version and the rules: what screens and transfers
 * share.
 */

/** Items are kept so many at a time, so that other changes get in between. */
const BATCH = 200;
const TABLES: ReadonlySet<string> = new Set(['csv', 'xlsx']);

interface Known {
  readonly rules: readonly ReadingRule[];
  readonly layouts: readonly TableLayout[];
}

async function known(): Promise<Known> {
  const rules = (await listRules()).map(({ name, origin, label, means }) => ({ name, origin, label, means }));
  return { rules, layouts: await listLayouts() };
}

/** What a reading of a package like this rests on: only the rules that hold for it count. */
export function basisOf(
  { origin, format }: Pick<PackageSummary, 'origin' | 'format'>,
  { rules, layouts }: Known,
): string {
  const holding = rules
    .filter((r) => ruleHoldsFor(r, origin))
    .map(({ origin: of, label, means }) => [of, label, means]);
  const tables = TABLES.has(format.container) ? layouts : [];
  return createHash('sha256')
    .update(JSON.stringify([READER_VERSION, holding, tables]))
    .digest('hex');
}

/** Reads a package and shows it by what was read; until then it is shown as it was, or not at all. */
export async function readPackage(id: string, { work, tell }: JobContext): Promise<void> {
  const file = await packageFile(id);
  if (!file) throw new Error('The package is gone.');
  const now = await known();
  const { tree, summary, rows } = await work('read', {
    path: storedPath(file.sha256),
    name: file.name,
    ...now,
  });
  const readingId = randomUUID();
  for (let at = 0; at < rows.length; at += BATCH) {
    await write((tx) => insertItems(tx, readingId, rows.slice(at, at + BATCH), at));
    tell('Storing items', Math.min(at + BATCH, rows.length), rows.length);
  }
  await write(async (tx) => {
    const before = await showReading(tx, id, { readingId, basis: basisOf(summary, now), tree, summary });
    if (before) await removeReading(tx, before);
    await insertContainers(tx, readingId, tree);
  });
}

export const read: Handler = {
  run: readPackage,
  failed: (id: string, failure: Finding) => write((tx) => noteFailure(tx, id, failure)),
};

/** Reads a package within another job, unless it has been read. */
export async function ensureRead(id: string, context: JobContext): Promise<void> {
  if ((await packageFile(id))?.state === 'ready') return;
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
  const now = await known();
  const outdated = (await readingBases()).filter(({ basis, summary }) => basis !== basisOf(summary, now));
  if (outdated.length === 0) return;
  await write(async (tx) => {
    for (const { id } of outdated) await queueJobOnce(tx, 'read', id, { background: true });
  });
}

/** Reads a package anew at once; until that is done it is shown as it was. */
export const readAgain = (id: string): Promise<void> => write((tx) => queueJobOnce(tx, 'read', id));

/** Removes what a reading left behind that was broken off. */
export const removeBrokenReadings = async (): Promise<void> => {
  const shown = await readingsShown();
  await write((tx) => removeStrayItems(tx, shown));
};
