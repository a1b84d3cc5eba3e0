import {
  applyEdits,
  chosenFrom,
  isReading,
  Lately,
  outlineOfPackage,
  outlineWithEdits,
  readHolding,
  saidBy,
  selectFrom,
  withLooseBank,
  withOutline,
  type CourseOutline,
  type Holding,
  type Layer,
  type Tick,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { readStored } from '../store/files.ts';
import { heldItemsOf } from '../store/heldItems.ts';
import { itemsOf } from '../store/items.ts';
import { knownReadings } from '../store/known.ts';
import { packageById, packageFile } from '../store/packages.ts';
import type { Progress } from './progress.ts';

/** Holdings as they stand in the database: worker threads take the very rows that screens show. */

/**
 * Holdings this thread has had lately, by reading: the steps of a transfer take the same ones one after the
 * other.
 */
const lately = new Lately<Holding>(4);
/**
 * Larger ones are not kept, and their items lie packed until they are looked into: a few of them would fill the thread's
 * memory.
 */
const KEPT_ITEMS = 2000;

/** @throws where the package is gone or has not been read */
export async function load(packageId: string, progress: Progress): Promise<Holding> {
  for (;;) {
    const held = await packageById(packageId);
    if (!held?.tree || held.readingId === null)
      throw new Error('The package has not been read yet, or is gone.');
    const before = lately.get(held.readingId);
    if (before) return before;
    progress(`Opening ${held.name}`, 0, 0);
    const many = (held.summary?.items ?? 0) > KEPT_ITEMS;
    const items = await (many ? heldItemsOf : itemsOf)(held.readingId);
    const holding: Holding = { ...held.tree, items };
    // Read anew meanwhile, it is swept away while we look: the next look is at what took its place.
    if ((await packageFile(packageId))?.readingId !== held.readingId) continue;
    if (holding.items.length <= KEPT_ITEMS) lately.set(held.readingId, holding);
    return holding;
  }
}

/** Holdings read again from their files, by package and what was put right in them. */
const again = new Map<string, Holding>();

/**
 * A package as it came, whatever was put right in it since.
 * @param layer what is said in it of how documents are read holds all the same
 * @throws where the package is gone or has not been read
 */
export async function loadAsCame(packageId: string, progress: Progress, layer: Layer = []): Promise<Holding> {
  const held = await packageById(packageId);
  if (!held?.tree) throw new Error('The package has not been read yet, or is gone.');
  if (held.putRight.steps.length === 0) return load(packageId, progress);
  const readings = layer.filter(isReading);
  const key = `${packageId} ${held.readingId} ${JSON.stringify(readings)}`;
  const before = again.get(key);
  if (before) return before;
  progress(`Opening ${held.name}`, 0, 0);
  const bytes = await readStored(held.sha256);
  const said = saidBy(readings);
  const holding = await readHolding(held.name, bytes, nodePlatform, { ...(await knownReadings()), said });
  again.clear();
  if (holding.items.length <= KEPT_ITEMS) again.set(key, holding);
  return holding;
}

/** What a transfer takes. */
export interface Selection {
  readonly packageId: string;
  readonly ticks: readonly Tick[];
  /** What the source course's outline says; null for a file in hand. */
  readonly outline: CourseOutline | null;
  /** The edits that stand over the source. */
  readonly layer: Layer;
  /** Whether it lands in a course, where single items need a bank to stand in. */
  readonly toCourse: boolean;
}

/** What was chosen of a source, and the source as it came. */
interface AsSent {
  readonly holding: Holding;
  /** The same choice of the source without any edit; null where nothing was changed. */
  readonly source: Holding | null;
}

/** What was chosen with the edits that stood when it was sent, whatever was put right since. */
export async function selectedAsSent(asked: Selection, progress: Progress): Promise<AsSent> {
  const came = await loadAsCame(asked.packageId, progress, asked.layer);
  if (asked.layer.length === 0) return { holding: chosenOf(came, asked).holding, source: null };
  const planned = applyEdits(came, asked.layer).holding;
  const source = chosenOf(came, { ...asked, layer: [] });
  return { holding: chosenOf(planned, asked).holding, source: source.holding };
}

/** Everything that was chosen, as the source says it: package and outline together. */
export const selected = async (
  asked: Selection,
  progress: Progress,
): Promise<{ holding: Holding; outline: CourseOutline }> =>
  chosenOf(await load(asked.packageId, progress), asked);

function chosenOf(
  source: Holding,
  { ticks, outline: asThere, layer, toCourse }: Selection,
): { holding: Holding; outline: CourseOutline } {
  const said = asThere && outlineWithEdits(asThere, layer, source);
  const outline = said ?? outlineOfPackage(source);
  const whole = said ? withOutline(source, said) : source;
  const { holding } = selectFrom(whole, chosenFrom(ticks));
  return { holding: toCourse ? withLooseBank(holding) : holding, outline };
}
