import { NO_ROWS, toRuns, type RoomRows, type RoomView, type Runs } from '../../shared/room.ts';
import { itemColumns, itemNames } from '../store/items.ts';
import type { Package } from '../store/packages.ts';
import { placesFound } from '../store/searchItems.ts';
import type { SeenPackage } from '../work/room.ts';
import { layerView } from './putRight.ts';
import { worked } from './worked.ts';

/** A package as its page shows it, with its reading; null where it has not been read. @throws WorkTrouble */
export async function packageSeen(
  packageId: string,
): Promise<(Omit<SeenPackage, 'room'> & { readonly room: RoomView | null }) | null> {
  const [seen, layer] = await Promise.all([worked('room', { packageId }), layerView(packageId)]);
  return seen && { ...seen, room: seen.room && { ...seen.room, layer } };
}

/** All of it, where the page brings only the first of long lists, as JSON without what its edits come to. @throws WorkTrouble */
export const roomText = (packageId: string): Promise<string | null> => worked('roomText', { packageId });

/** A package as the reading room shows it; null where it has not been read, or is one of rubrics. @throws WorkTrouble */
export const roomView = async (packageId: string): Promise<RoomView | null> =>
  (await packageSeen(packageId))?.room ?? null;

/** Values once each, and for every row which it is; -1 is none. */
function palette(values: readonly (string | null)[]): { once: string[]; which: number[] } {
  const known = new Map<string, number>();
  const which = values.map((value) => {
    if (value === null || value === '') return -1;
    if (!known.has(value)) known.set(value, known.size);
    return known.get(value)!;
  });
  return { once: [...known.keys()], which };
}

/** What the reading room's list knows of every item of a package, but for the names. */
export async function roomRows({ readingId }: Pick<Package, 'readingId'>): Promise<RoomRows> {
  if (readingId === null) return NO_ROWS;
  const { points, ...said } = await itemColumns(readingId);
  const [kinds, categories] = [palette(said.kinds), palette(said.categories)];
  return {
    kinds: kinds.once,
    kind: kinds.which,
    categories: categories.once,
    category: categories.which,
    points,
  };
}

/** What the items at some places are called, as pairs of place and name. */
export async function roomNames(
  { readingId }: Pick<Package, 'readingId'>,
  places: readonly number[],
): Promise<[number, string][]> {
  return readingId === null ? [] : itemNames(readingId, places);
}

/** Places of the items of a package that words find: in all they say, or in what is right. */
export async function roomFound(
  { readingId }: Pick<Package, 'readingId'>,
  { query, key }: { readonly query: string; readonly key: string },
): Promise<Runs> {
  if (readingId === null) return [];
  return toRuns([...(await placesFound(readingId, query, key))].sort((a, b) => a - b));
}
