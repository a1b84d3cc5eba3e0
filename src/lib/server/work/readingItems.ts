import { ItemPlaces, Lately, type Item } from '@alforja/core';
import { itemPoints } from '../store/items.ts';

/** The items of a reading, in order, as far as lists of very many are worked out from them. */
export interface ReadingItems {
  readonly ids: readonly string[];
  readonly points: readonly number[];
  readonly places: ItemPlaces;
  /** What an item is worth, by its id. */
  readonly worth: { readonly get: (id: string) => Pick<Item, 'points'> | undefined };
}

/** By reading: what was read does not change. */
const lately = new Lately<ReadingItems>(2);

/** The items of a reading; of those asked for last they are at hand. */
export async function readingItems(readingId: string): Promise<ReadingItems> {
  const had = lately.get(readingId);
  if (had) return had;
  const { ids, points } = await itemPoints(readingId);
  const places = new ItemPlaces(ids);
  const get = (id: string): Pick<Item, 'points'> | undefined => {
    const at = places.at(id);
    return at === undefined ? undefined : { points: points[at]! };
  };
  const found = { ids, points, places, worth: { get } };
  lately.set(readingId, found);
  return found;
}
