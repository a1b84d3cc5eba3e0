import { itemKey, type BankAt, type ItemAt, type Pool } from './draft.ts';
import { matches, type ItemFacts } from './filter.ts';

/** What a place holds, as lists know it: its items in order, and which of them stand in which bank. */
export interface Shelf {
  readonly items: readonly ItemFacts[];
  readonly banks: ReadonlyMap<string, readonly string[]>;
}
/** Places by name; null where one is gone. */
export type Shelves = (place: string) => Shelf | null;

/** Items of a bank, in its order; of the whole place where none is named. Nothing where it is gone. */
export function bankItems(shelves: Shelves, { place, bank }: BankAt): readonly ItemFacts[] {
  const shelf = shelves(place);
  if (!shelf) return [];
  if (bank === null) return shelf.items;
  const within = new Set(shelf.banks.get(bank));
  return shelf.items.filter((i) => within.has(i.item));
}

/** The items a draw chooses from, each once, in the order of its banks. */
export function poolItems(shelves: Shelves, { from, named, without }: Pool): ItemAt[] {
  const out = new Map<string, ItemAt>();
  const left = new Set(without.map(itemKey));
  const add = (at: ItemAt): void => {
    const key = itemKey(at);
    if (!left.has(key) && !out.has(key)) out.set(key, at);
  };
  for (const { filter, ...at } of from) {
    const fits = matches(filter);
    for (const facts of bankItems(shelves, at)) if (fits(facts)) add({ place: at.place, item: facts.item });
  }
  for (const at of named) add(at);
  return [...out.values()];
}
