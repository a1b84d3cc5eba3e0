import {
  bankItems,
  Lately,
  matches,
  quizItems,
  withOutline,
  type Holding,
  type ItemFacts,
  type ItemFilter,
  type Shelf,
} from '@alforja/core';
import type { ShelfView } from '../../shared/making.ts';
import { usedByMade } from '../store/takenItems.ts';
import { itemFacts, lineName } from '../store/items.ts';
import { placeNow, type PlaceNow } from '../store/places.ts';

/** What lists know of places: enough to narrow and to count by, without the items themselves. */

export interface PlaceShelf extends Shelf {
  readonly now: PlaceNow;
  /** The place an item has in its package, by id. */
  readonly seqs: ReadonlyMap<string, number>;
  readonly names: ReadonlyMap<string, string>;
  /** Quizzes, rubrics and files as the place has them. */
  readonly tree: Omit<Holding, 'items'>;
}

interface Known {
  readonly items: readonly Omit<ItemFacts, 'used'>[];
  readonly seqs: ReadonlyMap<string, number>;
  readonly names: ReadonlyMap<string, string>;
}

/** By reading: what was read does not change. */
const lately = new Lately<Known>(8);

async function known(readingId: string): Promise<Known> {
  const had = lately.get(readingId);
  if (had) return had;
  const { ids, kinds, points, categories, titles, stems, files } = await itemFacts(readingId);
  const fresh: Known = {
    items: ids.map((item, at) => ({
      item,
      kind: kinds[at]!,
      category: categories[at]!,
      points: points[at]!,
      picture: files[at]! > 0,
      text: `${titles[at]!} ${stems[at]!} ${categories[at] ?? ''}`,
    })),
    seqs: new Map(ids.map((id, at) => [id, at])),
    names: new Map(ids.map((id, at) => [id, lineName({ stem: stems[at]!, title: titles[at]! })])),
  };
  lately.set(readingId, fresh);
  return fresh;
}

/**
 * A place as lists know it.
 * @param but what is being made: that it uses an item itself does not count
 * @returns null where it is gone
 */
export async function shelfOf(place: string, but: string | null): Promise<PlaceShelf | null> {
  const now = await placeNow(place);
  if (!now?.held.tree) return null;
  const { items, seqs, names } = await known(now.held.readingId!);
  const tree = now.outline ? withOutline(now.held.tree, now.outline) : now.held.tree;
  const used = new Set([...tree.quizzes.flatMap((q) => quizItems(q)), ...(await usedByMade(place, but))]);
  return {
    now,
    seqs,
    names,
    tree,
    items: items.map((i) => ({ ...i, used: used.has(i.item) })),
    banks: new Map(tree.banks.map((b) => [b.id, b.items])),
  };
}

/** Shelves of several places at once, by place; those that are gone are left out. */
export async function shelvesOf(
  places: Iterable<string>,
  but: string | null,
): Promise<ReadonlyMap<string, PlaceShelf>> {
  const out = new Map<string, PlaceShelf>();
  for (const place of new Set(places)) {
    const shelf = await shelfOf(place, but);
    if (shelf) out.set(place, shelf);
  }
  return out;
}

export interface ShelfAsked {
  readonly place: string;
  readonly bank: string | null;
  readonly filter: ItemFilter;
  readonly from: number;
  readonly count: number;
  /** What is being made. */
  readonly but: string | null;
}

/** Some items of a bank under a filter, and what it can be narrowed to; null where it is gone. */
export async function madeShelf(asked: ShelfAsked): Promise<ShelfView | null> {
  const shelf = await shelfOf(asked.place, asked.but);
  if (!shelf) return null;
  const all = bankItems(() => shelf, asked);
  const found = all.filter(matches(asked.filter));
  const tally = (of: (i: (typeof all)[number]) => string): [string, number][] => {
    const counts = new Map<string, number>();
    for (const i of all) counts.set(of(i), (counts.get(of(i)) ?? 0) + 1);
    return [...counts];
  };
  return {
    packageId: shelf.now.held.id,
    total: found.length,
    points: found.reduce((sum, i) => sum + i.points, 0),
    from: asked.from,
    rows: found.slice(asked.from, asked.from + asked.count).map((i) => ({
      at: { place: asked.place, item: i.item },
      seq: shelf.seqs.get(i.item)!,
      name: shelf.names.get(i.item)!,
      kind: i.kind,
      category: i.category,
      points: i.points,
      used: i.used,
    })),
    kinds: tally((i) => i.kind),
    categories: tally((i) => i.category ?? ''),
    worth: [...new Set(all.map((i) => i.points))].sort((a, b) => a - b),
  };
}
