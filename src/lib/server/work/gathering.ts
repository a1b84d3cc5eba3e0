import { createHash } from 'node:crypto';
import {
  compose,
  finding,
  itemKey,
  MAX_MADE,
  namedItems,
  newItem,
  poolItems,
  Refusal,
  type Composed,
  type Draft,
  type FileRef,
  type Item,
  type ItemAt,
  type Source,
} from '@alforja/core';
import { itemsById } from '../store/items.ts';
import { takenFrom } from '../store/takenItems.ts';
import { packageById } from '../store/packages.ts';
import { shelvesOf, type PlaceShelf } from './shelves.ts';

/** A draft put together out of its places: what was taken before is as it was then. */

export interface Gathered extends Composed {
  readonly shelves: ReadonlyMap<string, PlaceShelf>;
  /** Whether the items are at hand, or only what lists know of them. */
  readonly whole: boolean;
  /** Items that were taken now: as they stand in their places, by place and id. */
  readonly fresh: ReadonlyMap<string, { readonly packageId: string; readonly item: Item }>;
}

/** Pools above this are looked at as lists know them while a quiz is being made. */
const LOOKED_AT = 3000;

/** Between a package and a path within it, where the bytes of a file stand. */
const IN = '\u0001';
export const whereStands = (from: string): { readonly packageId: string; readonly path: string } => {
  const at = from.indexOf(IN);
  return { packageId: from.slice(0, at), path: from.slice(at + IN.length) };
};

const placesIn = (draft: Draft): string[] => [
  ...namedItems(draft).map((i) => i.place),
  ...(draft.kind === 'quiz'
    ? [
        ...draft.plan.from.map((f) => f.place),
        ...draft.sections.flatMap((s) => [
          ...(s.draw?.pool.from.map((f) => f.place) ?? []),
          ...(s.draw?.pool.named.map((n) => n.place) ?? []),
        ]),
      ]
    : []),
];

/**
 * @param madeId what is being made
 * @param always whether items are fetched however many they are
 * @throws Refusal where these are more than what is made can hold
 */
export async function gather(madeId: string, draft: Draft, always: boolean): Promise<Gathered> {
  const shelves = await shelvesOf(placesIn(draft), madeId);
  const shelf = (place: string): PlaceShelf | null => shelves.get(place) ?? null;
  const drawn = new Map(
    draft.kind === 'quiz'
      ? draft.sections.flatMap((s) => (s.draw ? [[s.id, poolItems(shelf, s.draw.pool)] as const] : []))
      : [],
  );
  const wanted = new Map<string, Set<string>>();
  const want = ({ place, item: id }: ItemAt): void => {
    const ids = wanted.get(place) ?? new Set();
    wanted.set(place, ids.add(id));
  };
  namedItems(draft).forEach(want);
  for (const pool of drawn.values()) pool.forEach(want);
  const count = [...wanted.values()].reduce((sum, ids) => sum + ids.size, 0);
  if (always && count > MAX_MADE)
    throw new Refusal(finding('made-too-large', 'error', {}, { count, limit: MAX_MADE }));
  const whole = always || count <= LOOKED_AT;
  const sources = new Map<string, Source>();
  const fresh = new Map<string, { packageId: string; item: Item }>();
  for (const [place, ids] of wanted) {
    const there = shelf(place);
    if (!whole) {
      sources.set(place, { items: there ? stubs(there, ids) : [], files: [], rubrics: [] });
      continue;
    }
    const source = await taken(madeId, place, ids, there, fresh);
    sources.set(place, source);
  }
  return { ...compose(draft, drawn, sources), shelves, whole, fresh };
}

/** Items as lists know them. */
const stubs = ({ items, names }: PlaceShelf, ids: ReadonlySet<string>): Item[] =>
  items
    .filter((i) => ids.has(i.item))
    .map((i) =>
      newItem({ id: i.item, title: names.get(i.item) ?? '', points: i.points, category: i.category }),
    );

/** Items of a place: as they were when they were taken, else as they stand there now. */
async function taken(
  madeId: string,
  place: string,
  ids: ReadonlySet<string>,
  there: PlaceShelf | null,
  fresh: Map<string, { packageId: string; item: Item }>,
): Promise<Source> {
  const before = (await takenFrom(madeId, place)).filter((t) => ids.has(t.item.id));
  const had = new Set(before.map((t) => t.item.id));
  const files = new Map<string, FileRef>();
  for (const packageId of new Set(before.map((t) => t.packageId)))
    for (const f of await filesOf(packageId)) files.set(f.path, f);
  const items = before.map((t) => t.item);
  if (there) {
    const packageId = there.now.held.id;
    for (const found of await itemsNow(
      there,
      [...ids].filter((id) => !had.has(id)),
    )) {
      items.push(found);
      fresh.set(itemKey({ place, item: found.id }), { packageId, item: found });
    }
    for (const f of await filesOf(packageId)) if (!files.has(f.path)) files.set(f.path, f);
  }
  return { items, files: [...files.values()], rubrics: there?.tree.rubrics ?? [] };
}

/** Items that this thread has had lately, by reading and id. */
const lately = new Map<string, Item>();
const KEPT_ITEMS = 8000;

/** Items of a place as they stand there now. */
export async function itemsNow({ now }: PlaceShelf, ids: readonly string[]): Promise<Item[]> {
  const reading = now.held.readingId!;
  const missing = ids.filter((id) => !lately.has(`${reading} ${id}`));
  if (lately.size + missing.length > KEPT_ITEMS) lately.clear();
  const found = new Map((await itemsById(reading, missing)).map((i) => [i.id, i]));
  if (found.size <= KEPT_ITEMS) for (const [id, i] of found) lately.set(`${reading} ${id}`, i);
  return ids.flatMap((id) => found.get(id) ?? lately.get(`${reading} ${id}`) ?? []);
}

/** Files of a package, each saying where its bytes stand. */
async function filesOf(packageId: string): Promise<FileRef[]> {
  const held = await packageById(packageId);
  return (held?.tree?.files ?? []).map((f) =>
    f.embedded === undefined ? { ...f, from: `${packageId}${IN}${f.from ?? f.path}` } : f,
  );
}

/** A sum over all that an item says, wherever it stands. */
export const printOf = ({ id: _id, origin: _origin, ...said }: Item): string =>
  createHash('sha256').update(JSON.stringify(said)).digest('hex');
