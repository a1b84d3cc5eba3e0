import type { Answers } from '@alforja/core';
import type { ItemScore, PackageListing } from '../../shared/types.ts';
import type { Gradable } from '../../shared/transfers.ts';
import { write } from '../store/database.ts';
import { itemIdAt, itemLines, titledName } from '../store/items.ts';
import { queueJob } from '../store/jobs.ts';
import { pendingEdits } from './layers.ts';
import { changedParts } from './putRight.ts';
import { worked } from './worked.ts';
import {
  keepPackage,
  listPackages,
  noteReading,
  packageFile,
  putRightShown,
  settleFindings,
} from '../store/packages.ts';

/**
 * Brings stored bytes in as a package and has it read; the same bytes are the same package. One that could not be
 * read, or whose reading was stopped, is read once more.
 */
export const bringIn = (
  name: string,
  stored: { readonly sha256: string; readonly bytes: number },
  cameBy: 'file' | 'made' = 'file',
): Promise<{ package: PackageListing; known: boolean }> =>
  write(async (tx) => {
    const kept = await keepPackage(tx, { name, ...stored, cameBy });
    if (kept.known && kept.package.state === 'ready') return kept;
    await noteReading(tx, kept.package.id);
    await queueJob(tx, 'read', kept.package.id);
    return { ...kept, package: { ...kept.package, state: 'reading', failure: null } };
  });

/** Every package that somebody brought, newest first. */
export const broughtPackages = (limit?: number): Promise<PackageListing[]> => listPackages(limit, 'file');

/** Items of a package that are graded by hand. */
export async function gradableItems(packageId: string): Promise<Gradable[]> {
  const held = await packageFile(packageId);
  const lines = held?.readingId ? await itemLines(held.readingId) : [];
  return lines
    .filter((line) => line.gradedByHand)
    .map((line) => ({ kind: 'item', id: line.id, name: titledName(line), points: line.points }));
}

/** An item cannot be shown, in words for people. */
export class ItemTrouble extends Error {}

/**
 * An item by its place in a package, with what is right in it, as JSON; null where there is none.
 * @throws ItemTrouble
 */
export const itemView = (packageId: string, seq: number): Promise<string | null> =>
  worked('item', { packageId, seq }, ItemTrouble);

/**
 * An item as it is changed where it stands, with what of it was changed, as JSON; null where there is none.
 * @throws ItemTrouble
 */
export async function wholeItem(packageId: string, seq: number): Promise<string | null> {
  let before: string | null = null;
  for (;;) {
    const shown = await putRightShown(packageId);
    const node = shown && (await itemIdAt(shown.readingId, seq));
    if (!shown || node === null || shown.readingId === before) return null;
    const [changed, pending] = await Promise.all([
      changedParts(packageId, node),
      pendingEdits(packageId, shown.steps),
    ]);
    const asked = { readingId: shown.readingId, seq, changed, pending };
    const item = await worked('itemWhole', asked, ItemTrouble);
    if (item !== null) return item;
    // The reading was taken over by the next one meanwhile, and is gone.
    before = shown.readingId;
  }
}

/** What one set of answers scores in an item; null where there is none. @throws ItemTrouble */
export const itemScore = (packageId: string, seq: number, answers: Answers): Promise<ItemScore | null> =>
  worked('itemScore', { packageId, seq, answers }, ItemTrouble);

/** Says that what was found in a package is dealt with, so that it no longer waits; or takes that back. */
export const settle = (packageId: string, settled: boolean): Promise<unknown> =>
  write((tx) => settleFindings(tx, packageId, settled ? Date.now() : null));
