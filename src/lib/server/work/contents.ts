import {
  contentsOf,
  outlineWithEdits,
  speak,
  withOutline,
  type ContentsView,
  type CourseOutline,
  type Layer,
  type Tick,
  type Tree,
} from '@alforja/core';
import type { ItemRow } from '../../shared/types.ts';
import { itemLines, lineName } from '../store/items.ts';
import { packageById } from '../store/packages.ts';
import { load } from './holdings.ts';
import type { Progress } from './progress.ts';
import type { PackageAsked } from './trees.ts';

/** What a transfer's page shows of its source: every item is gone through. */

export interface ContentsAsked extends PackageAsked {
  readonly ticks: readonly Tick[];
  /** What the source course says beside its package; null for a file in hand. */
  readonly outline: CourseOutline | null;
  /** The edits that stand over the source. */
  readonly layer: Layer;
}

/** What goes when this is ticked, what comes along, and what does not go. */
export async function contentsTask(asked: ContentsAsked, progress: Progress): Promise<ContentsView> {
  const source = await load(asked.packageId, progress);
  const said = asked.outline && outlineWithEdits(asked.outline, asked.layer, source);
  return contentsOf(said ? withOutline(source, said) : source, asked.ticks);
}

/** What lists show of every item of a package. */
export async function itemRowsTask({ packageId }: PackageAsked): Promise<ItemRow[]> {
  const held = await packageById(packageId);
  if (!held?.tree || held.readingId === null) return [];
  const trouble = troubleByItem(held.tree);
  return (await itemLines(held.readingId)).map((line) => ({
    seq: line.seq,
    id: line.id,
    name: lineName(line),
    kind: line.kind,
    points: line.points,
    trouble: trouble.get(line.id) ?? null,
  }));
}

/** The first thing found on each item that is more than a note, in words. */
function troubleByItem(tree: Pick<Tree, 'findings'>): Map<string, string> {
  const trouble = new Map<string, string>();
  for (const found of tree.findings) {
    const { node } = found.where;
    if (node && found.severity !== 'note' && !trouble.has(node)) trouble.set(node, speak(found).message);
  }
  return trouble;
}
