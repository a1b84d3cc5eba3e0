import { ItemPlaces } from '@alforja/core';
import { itemPoints } from '../store/items.ts';
import { Lately } from '../store/lately.ts';

/** The items of a reading, in order, as far as lists of very many are worked out from them. */
export interface ReadingItems {
  readonly ids: readonly string[];
  readonly points: readonly number[];
  readonly places: ItemPlaces;
}

/** By reading: what was read does not change. */
const lately = new Lately<ReadingItems>(2);

/** The items of a reading; of those asked for last they are at hand. */
export async function readingItems(readingId: string): Promise<ReadingItems> {
  const had = lately.get(readingId);
  if (had) return had;
  const { ids, points } = await itemPoints(readingId);
  const found = { ids, points, places: new ItemPlaces(ids) };
  lately.set(readingId, found);
  return found;
}
