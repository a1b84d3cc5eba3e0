import {
  knowItemPlaces,
  Lately,
  outlineWithEdits,
  quizItems,
  tickId,
  withOutline,
  type ContentsItem,
  type CourseOutline,
  type ItemPlaces,
  type Layer,
  type Tick,
  type Tree,
} from '@alforja/core';
import { says } from '../../shared/contents.ts';
import { itemFiles, itemTexts, lineName } from '../store/items.ts';
import { packageById } from '../store/packages.ts';
import { readingItems } from './readingItems.ts';
import type { PackageAsked } from './trees.ts';

/** What the page of a transfer asks of its source, without any item being read. */

export interface SourceAsked extends PackageAsked {
  /** What the source course says beside its package; null for a file in hand. */
  readonly outline: CourseOutline | null;
  /** The edits that stand over the source. */
  readonly layer: Layer;
}

/** What is known of the items of a reading. */
export interface ItemFacts {
  readonly items: readonly ContentsItem[];
  readonly places: ItemPlaces;
}

export interface SourceFacts extends ItemFacts {
  readonly readingId: string;
  /** As its course says it. */
  readonly tree: Tree;
}

/** By reading: what was read does not change. */
const lately = new Lately<ItemFacts>(2);

async function known(readingId: string): Promise<ItemFacts> {
  const had = lately.get(readingId);
  if (had) return had;
  const facts = await factsOf(readingId);
  lately.set(readingId, facts);
  return facts;
}

async function factsOf(readingId: string): Promise<ItemFacts> {
  const [{ ids, points, places }, files] = await Promise.all([readingItems(readingId), itemFiles(readingId)]);
  const items = ids.map((id, at) => ({ id, points: points[at]!, files: files.get(at) ?? [] }));
  knowItemPlaces(items, places);
  return { items, places };
}

/** @returns null where the package is gone or has not been read */
export async function sourceFacts({ packageId, outline, layer }: SourceAsked): Promise<SourceFacts | null> {
  const held = await packageById(packageId);
  if (!held?.tree || held.readingId === null) return null;
  const { tree, readingId } = held;
  const said = outline && outlineWithEdits(outline, layer, tree);
  return { ...(await known(readingId)), readingId, tree: said ? withOutline(tree, said) : tree };
}

/** Quizzes and banks with what they hold, as ticks. */
export const holders = ({
  quizzes,
  banks,
}: Tree): { tick: Tick; title: string; items: readonly string[] }[] => [
  ...quizzes.map((q) => ({
    tick: { kind: 'quiz' as const, nodeId: q.id },
    title: q.title,
    items: [...new Set(quizItems(q))],
  })),
  ...banks.map((b) => ({ tick: { kind: 'bank' as const, nodeId: b.id }, title: b.title, items: b.items })),
];

const held = new WeakMap<Tree, ReadonlyMap<string, readonly string[]>>();

/** Ids of the items that a quiz or a bank holds, each once, in order. */
export function itemsIn(tree: Tree, tick: Tick): readonly string[] {
  const known = held.get(tree) ?? new Map(holders(tree).map((h) => [tickId(h.tick), h.items]));
  held.set(tree, known);
  return known.get(tickId(tick)) ?? [];
}

/** Names of all items of the reading that was filtered last. */
let filtered: { readonly readingId: string; readonly names: readonly string[] } | null = null;

/** Whether the names of items hold what somebody filters by, by their places. @param filter not empty */
export async function namesThatFit(readingId: string, filter: string): Promise<(at: number) => boolean> {
  if (filtered?.readingId !== readingId) {
    const { stems, titles } = await itemTexts(readingId);
    filtered = { readingId, names: stems.map((stem, at) => lineName({ stem, title: titles[at]! })) };
  }
  const { names } = filtered;
  return (at) => says(names[at] ?? '', filter);
}
