import {
  outlineWithEdits,
  quizItems,
  withOutline,
  type ContentsItem,
  type CourseOutline,
  type Layer,
  type Tick,
  type Tree,
} from '@alforja/core';
import { itemFiles, itemPoints, itemTexts, lineName } from '../store/items.ts';
import { packageById } from '../store/packages.ts';
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
  /** Where each item stands, from 0, by its id. */
  readonly places: ReadonlyMap<string, number>;
}

export interface SourceFacts extends ItemFacts {
  readonly readingId: string;
  /** As its course says it. */
  readonly tree: Tree;
}

/** By reading: what was read does not change. */
const lately = new Map<string, Promise<ItemFacts>>();
const KEPT = 2;

function known(readingId: string): Promise<ItemFacts> {
  const facts = lately.get(readingId) ?? factsOf(readingId);
  lately.delete(readingId);
  lately.set(readingId, facts);
  if (lately.size > KEPT) lately.delete(lately.keys().next().value!);
  // What could not be looked up is looked up again.
  facts.catch(() => lately.delete(readingId));
  return facts;
}

async function factsOf(readingId: string): Promise<ItemFacts> {
  const [{ ids, points }, files] = await Promise.all([itemPoints(readingId), itemFiles(readingId)]);
  return {
    items: ids.map((id, at) => ({ id, points: points[at]!, files: files.get(at) ?? [] })),
    places: new Map(ids.map((id, at) => [id, at])),
  };
}

/** @returns null where the package is gone or has not been read */
export async function sourceFacts({ packageId, outline, layer }: SourceAsked): Promise<SourceFacts | null> {
  const held = await packageById(packageId);
  if (!held?.tree || held.readingId === null) return null;
  const { tree, readingId } = held;
  const said = outline && outlineWithEdits(outline, layer, tree);
  const { items: _, ...called } = said ? withOutline({ ...tree, items: [] }, said) : { ...tree, items: [] };
  return { ...(await known(readingId)), readingId, tree: called };
}

/** Ids of the items that a quiz or a bank holds, each once, in order. */
export function itemsIn({ quizzes, banks }: Tree, { kind, nodeId }: Tick): readonly string[] {
  if (kind === 'bank') return banks.find((b) => b.id === nodeId)?.items ?? [];
  const quiz = kind === 'quiz' ? quizzes.find((q) => q.id === nodeId) : undefined;
  return quiz ? [...new Set(quizItems(quiz))] : [];
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

/** Names of all items of one reading, folded as a filter compares them: those of the latest that was filtered. */
let folded: { readonly readingId: string; readonly names: Promise<readonly string[]> } | null = null;

/** Whether the names of items hold what somebody filters by, by their places. @param filter not empty */
export async function namesThatFit(readingId: string, filter: string): Promise<(at: number) => boolean> {
  if (folded?.readingId !== readingId)
    folded = {
      readingId,
      names: itemTexts(readingId).then(({ stems, titles }) =>
        stems.map((stem, at) => lineName({ stem, title: titles[at]! }).toLowerCase()),
      ),
    };
  const names = await folded.names;
  const wanted = folding(filter);
  return (at) => names[at]?.includes(wanted) ?? false;
}

const folding = (filter: string): string => filter.trim().toLowerCase();
/** Whether a text holds what somebody filters by; an empty filter holds for all. */
export const says = (text: string, filter: string): boolean => text.toLowerCase().includes(folding(filter));
