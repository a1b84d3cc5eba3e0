import { nameOf, type Draft, type FixedItem, type Item, type ItemAt } from '@alforja/core';
import type { MadeRow } from '../../shared/making.ts';
import { takenBy } from '../store/takenItems.ts';
import { itemsNow, printOf } from './gathering.ts';
import type { PlaceShelf } from './shelves.ts';

/** What is made, as threads are asked about it, and its items as screens show them. */

export interface DraftAsked<D extends Draft = Draft> {
  readonly madeId: string;
  readonly draft: D;
}

export const placeName = (shelf: PlaceShelf | undefined): string => shelf?.now.held.name ?? 'gone';

export function rowOf(asked: FixedItem, item: Item, kind: string, shelf: PlaceShelf | undefined): MadeRow {
  return {
    key: asked.key,
    at: { place: asked.place, item: asked.item },
    name: nameOf(item),
    kind,
    category: item.category,
    points: item.points,
    from: placeName(shelf),
    packageId: shelf?.now.held.id ?? null,
    seq: shelf?.seqs.get(asked.item) ?? null,
  };
}

/** Items taken whose source says something else now. */
export async function newerOf(madeId: string, shelves: ReadonlyMap<string, PlaceShelf>): Promise<ItemAt[]> {
  const taken = await takenBy(madeId);
  const out: ItemAt[] = [];
  for (const [place, shelf] of shelves) {
    const those = taken.filter((t) => t.place === place);
    const now = await itemsNow(
      shelf,
      those.map((t) => t.item),
    );
    const prints = new Map(now.map((i) => [i.id, printOf(i)]));
    for (const { item, print } of those) if ((prints.get(item) ?? print) !== print) out.push({ place, item });
  }
  return out;
}
