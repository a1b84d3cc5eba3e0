import {
  chosenFrom,
  outlineOfPackage,
  selectFrom,
  withLooseBank,
  withOutline,
  type CourseOutline,
  type Holding,
  type Tick,
} from '@alforja/core';
import { itemsOf } from '../store/items.ts';
import { packageById } from '../store/packages.ts';
import type { Progress } from './progress.ts';

/** Holdings as they stand in the database: worker threads take the very rows that screens show. */

/**
 * Holdings this thread has had lately, by reading: the steps of a transfer take the same ones one after the
 * other.
 */
const lately = new Map<string, Holding>();
const KEPT_HOLDINGS = 4;
/** Larger ones are not kept: a few of them would fill the thread's memory. */
const KEPT_ITEMS = 2000;

/** @throws where the package is gone or has not been read */
export async function load(packageId: string, progress: Progress): Promise<Holding> {
  const held = await packageById(packageId);
  if (!held?.tree || held.readingId === null)
    throw new Error('The package has not been read yet, or is gone.');
  const before = lately.get(held.readingId);
  if (before) {
    lately.delete(held.readingId);
    lately.set(held.readingId, before);
    return before;
  }
  progress(`Opening ${held.name}`, 0, 0);
  const holding: Holding = { ...held.tree, items: await itemsOf(held.readingId) };
  if (holding.items.length <= KEPT_ITEMS) lately.set(held.readingId, holding);
  if (lately.size > KEPT_HOLDINGS) lately.delete(lately.keys().next().value!);
  return holding;
}

/** What a transfer takes. */
export interface Selection {
  readonly packageId: string;
  readonly ticks: readonly Tick[];
  /** What the source course's outline says; null for a file in hand. */
  readonly outline: CourseOutline | null;
  /** Whether it lands in a course, where single items need a bank to stand in. */
  readonly toCourse: boolean;
}

/** Everything that was chosen, as the source says it: package and outline together. */
export async function selected(
  { packageId, ticks, outline: said, toCourse }: Selection,
  progress: Progress,
): Promise<{ holding: Holding; outline: CourseOutline }> {
  const source = await load(packageId, progress);
  const outline = said ?? outlineOfPackage(source);
  const whole = said ? withOutline(source, said) : source;
  const { holding } = selectFrom(whole, chosenFrom(ticks));
  return { holding: toCourse ? withLooseBank(holding) : holding, outline };
}
