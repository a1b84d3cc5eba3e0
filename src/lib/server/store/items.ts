import { knowFingerprint, knowLine, nameFrom, opening, UNNAMED } from '@alforja/core';
import { and, asc, eq, gte, inArray, lt, lte, ne, sql, type SQL } from 'drizzle-orm';
import { z } from 'zod';
import type { Item } from '@alforja/core';
import type { StoredItem } from '../../shared/types.ts';
import { db, type Transaction } from './database.ts';
import { itemCodec, itemFilesCodec } from './documents/packages.ts';
import { pack } from './packed.ts';
import { items } from './schema.ts';
import { noteWords } from './searchWords.ts';

/** What lists need of an item. */
export interface ItemLine {
  readonly seq: number;
  readonly id: string;
  readonly title: string;
  readonly stem: string;
  readonly kind: string;
  readonly points: number;
  readonly gradedByHand: boolean;
}

const LINE = {
  seq: items.seq,
  id: items.nodeId,
  title: items.title,
  stem: items.stem,
  kind: items.kinds,
  points: items.points,
  gradedByHand: items.gradedByHand,
};

/** The longest names that lists show, in characters. */
const LONGEST_NAME = 160;

/** What lists call an item: its text, or its title where it has none. */
export const lineName = ({ stem, title }: Pick<ItemLine, 'stem' | 'title'>): string =>
  opening(stem || title, LONGEST_NAME) || UNNAMED.item;

/** What an item is called where its title tells it better: beside rubrics that grade it. */
export const titledName = ({ stem, title }: Pick<ItemLine, 'stem' | 'title'>): string =>
  opening(title || stem, LONGEST_NAME) || UNNAMED.item;

/** A row, and its place in the order of its reading. */
export interface PlacedRow {
  readonly row: StoredItem;
  readonly seq: number;
}

/** Puts items of a reading in. */
export async function insertItems(
  tx: Transaction,
  readingId: string,
  rows: readonly PlacedRow[],
): Promise<void> {
  if (rows.length === 0) return;
  await tx.insert(items).values(rows.map(({ row, seq }) => ({ ...row, readingId, seq })));
  await noteWords(
    tx,
    rows.flatMap(({ row }) => [row.says, row.keyed]),
  );
}

/** Removes the items at some places of a reading. */
export async function removeItemsAt(
  tx: Transaction,
  readingId: string,
  places: readonly number[],
): Promise<void> {
  if (places.length === 0) return;
  await tx.delete(items).where(and(eq(items.readingId, readingId), inArray(items.seq, [...places])));
}

/** Items that one change removes: each goes from the search, too. */
const REMOVED_AT_ONCE = 100;

/** Removes some items of a reading. @returns whether there were any */
export async function removeSomeItems(tx: Transaction, readingId: string): Promise<boolean> {
  const some = await tx
    .select({ seq: items.seq })
    .from(items)
    .where(eq(items.readingId, readingId))
    .orderBy(asc(items.seq))
    .limit(REMOVED_AT_ONCE);
  const last = some.at(-1);
  if (!last) return false;
  await tx.delete(items).where(and(eq(items.readingId, readingId), lte(items.seq, last.seq)));
  return true;
}

/** Every item of a reading as lists need it, in order. */
export const itemLines = (readingId: string): Promise<ItemLine[]> =>
  db.select(LINE).from(items).where(eq(items.readingId, readingId)).orderBy(asc(items.seq));

/**
 * Columns of all items of a reading, each as one list, in order. Rows one by one cost five times as much.
 * @param of pairs of names and SQLite's json_group_array
 */
async function columns<T>(readingId: string, of: SQL, shape: z.ZodType<T>): Promise<T> {
  const [row] = await db.all<{ columns: string }>(
    sql`SELECT json_object(${of}) AS columns FROM (SELECT * FROM items WHERE reading_id = ${readingId} ORDER BY seq)`,
  );
  return shape.parse(JSON.parse(row?.columns ?? '{}'));
}

const texts = z.array(z.string()).readonly();
const numbers = z.array(z.number()).readonly();
const Points = z.object({ ids: texts, points: numbers });
const Columns = z.object({
  kinds: texts,
  points: numbers,
  categories: z.array(z.string().nullable()).readonly(),
});

const Texts = z.object({ stems: texts, titles: texts });

const Facts = z.object({
  ids: texts,
  kinds: texts,
  points: numbers,
  categories: z.array(z.string().nullable()).readonly(),
  titles: texts,
  stems: texts,
  files: numbers,
});

/** What filters of lists ask of all items of a reading, in order. */
export const itemFacts = (readingId: string): Promise<z.infer<typeof Facts>> =>
  columns(
    readingId,
    sql`'ids', json_group_array(node_id), 'kinds', json_group_array(kinds), 'points', json_group_array(points),
      'categories', json_group_array(category), 'titles', json_group_array(title), 'stems', json_group_array(stem),
      'files', json_group_array(files <> '')`,
    Facts,
  );

/** Ids and points of all items of a reading, in order. */
export const itemPoints = (readingId: string): Promise<z.infer<typeof Points>> =>
  columns(readingId, sql`'ids', json_group_array(node_id), 'points', json_group_array(points)`, Points);

/** What all items of a reading are called, in order: their texts and titles. */
export const itemTexts = (readingId: string): Promise<z.infer<typeof Texts>> =>
  columns(readingId, sql`'stems', json_group_array(stem), 'titles', json_group_array(title)`, Texts);

/** The files that items of a reading show, by their places; of items that show none, nothing. */
export async function itemFiles(readingId: string): Promise<Map<number, Item['files']>> {
  const rows = await db
    .select({ seq: items.seq, files: items.files })
    .from(items)
    .where(and(eq(items.readingId, readingId), ne(items.files, '')));
  return new Map(rows.map(({ seq, files }) => [seq, itemFilesCodec.read(files)]));
}

/** What very long lists know of all items of a reading, in order. */
export const itemColumns = (readingId: string): Promise<z.infer<typeof Columns>> =>
  columns(
    readingId,
    sql`'kinds', json_group_array(kinds), 'points', json_group_array(points), 'categories', json_group_array(category)`,
    Columns,
  );

/** What lists need of the items at some places of a reading, in no order. */
export const itemLinesAt = (readingId: string, places: readonly number[]): Promise<ItemLine[]> =>
  db
    .select(LINE)
    .from(items)
    .where(and(eq(items.readingId, readingId), inArray(items.seq, [...places])));

/** What lists call the items at some places of a reading, as pairs of place and name. */
export async function itemNames(readingId: string, places: readonly number[]): Promise<[number, string][]> {
  const rows = await db
    .select({ seq: items.seq, stem: items.stem, title: items.title })
    .from(items)
    .where(and(eq(items.readingId, readingId), inArray(items.seq, [...places])));
  return rows.map((row) => [row.seq, lineName(row)]);
}

/** Items of a reading by their ids: their place and what they are called. */
export async function itemsNamed(
  readingId: string,
  ids: readonly string[],
): Promise<Map<string, { readonly seq: number; readonly name: string }>> {
  const found = new Map<string, { readonly seq: number; readonly name: string }>();
  for (let at = 0; at < ids.length; at += 500) {
    const rows = await db
      .select({ id: items.nodeId, seq: items.seq, stem: items.stem, title: items.title })
      .from(items)
      .where(and(eq(items.readingId, readingId), inArray(items.nodeId, ids.slice(at, at + 500))));
    for (const row of rows) found.set(row.id, { seq: row.seq, name: lineName(row) });
  }
  return found;
}

/** Items of a reading by their ids, in order. */
export async function itemsById(readingId: string, ids: readonly string[]): Promise<Item[]> {
  const out: Item[] = [];
  for (let at = 0; at < ids.length; at += 500) {
    const rows = await db
      .select({ json: items.json })
      .from(items)
      .where(and(eq(items.readingId, readingId), inArray(items.nodeId, ids.slice(at, at + 500))))
      .orderBy(asc(items.seq));
    out.push(...rows.map(({ json }) => itemCodec.read(json)));
  }
  return out;
}

/** The id of the item at a place of a reading; null where there is none. */
export async function itemIdAt(readingId: string, seq: number): Promise<string | null> {
  const [row] = await db
    .select({ id: items.nodeId })
    .from(items)
    .where(and(eq(items.readingId, readingId), eq(items.seq, seq)));
  return row?.id ?? null;
}

export async function itemAt(readingId: string, seq: number): Promise<Item | null> {
  const [row] = await db
    .select({ json: items.json })
    .from(items)
    .where(and(eq(items.readingId, readingId), eq(items.seq, seq)));
  return row ? itemCodec.read(row.json) : null;
}

/** What is known of an item without its document. */
export interface ItemKnown {
  readonly id: string;
  readonly title: string;
  readonly points: number;
  readonly category: string | null;
  readonly files: string;
  readonly stem: string;
  readonly kind: string;
  readonly fingerprint: string;
  /** Null where an older version read it. */
  readonly key: string | null;
}

const KNOWN = {
  id: items.nodeId,
  title: items.title,
  points: items.points,
  category: items.category,
  files: items.files,
  stem: items.stem,
  kind: items.kinds,
  fingerprint: items.fingerprint,
  key: items.shortKey,
};

/** Items that are read at a time, so that none stands in memory twice for long. */
const READ_AT_ONCE = 1000;

/** Goes through the rows of a reading in order, some at a time. */
async function* batches<T>(
  rows: (within: SQL) => Promise<readonly T[]>,
  readingId: string,
): AsyncGenerator<readonly T[]> {
  for (let from = 0; ; from += READ_AT_ONCE) {
    const batch = await rows(
      and(eq(items.readingId, readingId), gte(items.seq, from), lt(items.seq, from + READ_AT_ONCE))!,
    );
    yield batch;
    if (batch.length < READ_AT_ONCE) return;
  }
}

/** Every item of a reading, in order. */
export async function itemsOf(readingId: string): Promise<Item[]> {
  const out: Item[] = [];
  const rows = (within: SQL) =>
    db
      .select({ ...KNOWN, json: items.json })
      .from(items)
      .where(within)
      .orderBy(asc(items.seq));
  for await (const batch of batches(rows, readingId))
    for (const { json, ...known } of batch) out.push(alsoKnown(itemCodec.read(json), known));
  return out;
}

/** Every item of a reading, in order, each with its document as it is kept: there may be more than memory holds. */
export async function* packedItemsOf(
  readingId: string,
): AsyncGenerator<readonly (ItemKnown & { readonly packed: Uint8Array })[]> {
  const rows = (within: SQL) =>
    db
      .select({ ...KNOWN, packed: sql<string | ArrayBuffer>`${items.json}` })
      .from(items)
      .where(within)
      .orderBy(asc(items.seq));
  for await (const batch of batches(rows, readingId))
    yield batch.map(({ packed, ...known }) => ({
      ...known,
      // As an older version kept it.
      packed: typeof packed === 'string' ? pack(packed) : new Uint8Array(packed),
    }));
}

/** Says of an item what was found out when it was read. */
export function alsoKnown(item: Item, { title, stem, kind, fingerprint, key }: ItemKnown): Item {
  knowFingerprint(item, fingerprint);
  const name = nameFrom(title, stem);
  if (key !== null && name !== '') knowLine(item, { name, kind, key });
  return item;
}

/** Items by these ids in all readings that a course's snapshots were shown by, the oldest first. */
export async function itemLinesOfCourse(
  courseId: string,
  ids: readonly string[],
): Promise<Pick<ItemLine, 'id' | 'title' | 'stem' | 'points'>[]> {
  if (ids.length === 0) return [];
  const wanted = sql.join(
    ids.map((id) => sql`${id}`),
    sql`, `,
  );
  return db.all(sql`
    SELECT i.node_id AS id, i.title AS title, i.stem AS stem, i.points AS points
    FROM items i JOIN packages p ON p.reading_id = i.reading_id JOIN snapshots s ON s.package_id = p.id
    WHERE s.course_id = ${courseId} AND i.node_id IN (${wanted}) ORDER BY s.taken_at`);
}
