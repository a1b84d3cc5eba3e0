import {
  LOOSE,
  outlineWithEdits,
  ticksOfKinds,
  THING_KINDS,
  withOutline,
  type CourseOutline,
  type Tick,
  type Tree,
} from '@alforja/core';
import type { ContentsList, ContentsShown, ItemPage } from '../../shared/contents.ts';
import { appliedEdits } from '../library/layers.ts';
import { worked } from '../library/worked.ts';
import { packageById, type Package } from '../store/packages.ts';
import { snapshotById } from '../store/snapshots.ts';
import type { Transfer } from '../store/transfers.ts';
import type { SourceAsked } from '../work/sourceFacts.ts';

/**
 * What a transfer takes from: the package without its items, and what the course it came from says beside it.
 */
export interface TransferSource {
  readonly package: Package;
  readonly tree: Tree;
  /** Null for a file in hand. */
  readonly outline: CourseOutline | null;
}

/** @returns null where the package is gone or has not been read */
export async function sourceOf(
  transfer: Pick<Transfer, 'packageId' | 'sourceSnapshot'>,
): Promise<TransferSource | null> {
  const held = await packageById(transfer.packageId);
  if (!held?.tree) return null;
  const taken = transfer.sourceSnapshot ? await snapshotById(transfer.sourceSnapshot) : null;
  const outline = taken?.outline ?? null;
  const said = outline && outlineWithEdits(outline, await appliedEdits(held.id), held.tree);
  // What a course calls its things goes before what their files are called; its rubrics stand beside them.
  return { package: held, tree: said ? withOutline(held.tree, said) : held.tree, outline };
}

const askedOf = async ({ package: { id: packageId }, outline }: TransferSource): Promise<SourceAsked> => ({
  packageId,
  outline,
  layer: outline ? await appliedEdits(packageId) : [],
});

/** What the ticks bring along and what they leave behind. @throws WorkTrouble */
export const contentsFor = async (source: TransferSource, ticks: readonly Tick[]): Promise<ContentsShown> =>
  worked('contents', { ...(await askedOf(source)), ticks });

/** What can be ticked. @param filter only what holds these words; '' is all @throws WorkTrouble */
export const contentsListFor = async (source: TransferSource, filter: string): Promise<ContentsList> =>
  worked('contentsList', { ...(await askedOf(source)), filter });

/** Items of a thing, a page of them from a place on. @throws WorkTrouble */
export const contentsItemsFor = async (
  source: TransferSource,
  asked: { readonly of: Tick; readonly filter: string; readonly from: number },
): Promise<ItemPage> => worked('contentsItems', { ...(await askedOf(source)), ...asked });

/** Everything: quizzes, banks, links, rubrics, and the items that stand in no quiz and no bank. @throws WorkTrouble */
export async function allTicks(source: TransferSource): Promise<Tick[]> {
  const { loose } = await contentsListFor(source, '');
  return [...ticksOfKinds(source.tree, THING_KINDS), ...(loose > 0 ? [LOOSE] : [])];
}
