import { and, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { Draft, Item } from '@alforja/core';
import { db, type Transaction } from './database.ts';
import { itemCodec } from './documents/packages.ts';
import { made, takenItems } from './schema.ts';

/** An item as it was when it was taken. */
export interface TakenItem {
  readonly place: string;
  readonly item: string;
  readonly packageId: string;
  readonly print: string;
}

const TAKEN = {
  place: takenItems.place,
  item: takenItems.item,
  packageId: takenItems.packageId,
  print: takenItems.print,
};

/** What something that is made has taken, without the items themselves. */
export const takenBy = (madeId: string): Promise<TakenItem[]> =>
  db.select(TAKEN).from(takenItems).where(eq(takenItems.madeId, madeId));

/** The items that something has taken from a place, as they were then. */
export async function takenFrom(
  madeId: string,
  place: string,
): Promise<{ readonly packageId: string; readonly item: Item }[]> {
  const rows = await db
    .select({ packageId: takenItems.packageId, json: takenItems.json })
    .from(takenItems)
    .where(and(eq(takenItems.madeId, madeId), eq(takenItems.place, place)));
  return rows.map(({ packageId, json }) => ({ packageId, item: itemCodec.read(json) }));
}

/** Rows that one statement puts in. */
const ROWS = 200;

/** Keeps items as they are taken; those that were taken before stay as they were. */
export async function noteTaken(
  tx: Transaction,
  madeId: string,
  taken: readonly (TakenItem & { readonly json: string })[],
): Promise<void> {
  for (let at = 0; at < taken.length; at += ROWS)
    await tx
      .insert(takenItems)
      .values(taken.slice(at, at + ROWS).map((t) => ({ ...t, madeId })))
      .onConflictDoNothing();
}

/** Forgets how some items of a place were, so that they are taken as they are now. */
export async function forgetTaken(
  tx: Transaction,
  madeId: string,
  place: string,
  items: readonly string[],
): Promise<void> {
  for (let at = 0; at < items.length; at += ROWS)
    await tx
      .delete(takenItems)
      .where(
        and(
          eq(takenItems.madeId, madeId),
          eq(takenItems.place, place),
          inArray(takenItems.item, items.slice(at, at + ROWS)),
        ),
      );
}

/** Items of a place that quizzes made here have taken, but for one of them. */
export async function usedByMade(place: string, but: string | null): Promise<string[]> {
  const rows = await db
    .select({ item: takenItems.item })
    .from(takenItems)
    .innerJoin(made, eq(made.id, takenItems.madeId))
    .where(
      and(
        eq(takenItems.place, place),
        eq(made.kind, 'quiz'),
        isNull(made.thrownAt),
        but === null ? undefined : sql`${made.id} <> ${but}`,
      ),
    );
  return rows.map((r) => r.item);
}

/** Where things that are made here took items of places from: places with the titles of what took them. */
export async function takersOf(): Promise<
  { readonly place: string; readonly id: string; readonly title: string; readonly kind: Draft['kind'] }[]
> {
  return db
    .selectDistinct({ place: takenItems.place, id: made.id, title: made.title, kind: made.kind })
    .from(takenItems)
    .innerJoin(made, eq(made.id, takenItems.madeId))
    .where(isNull(made.thrownAt));
}

/** Forgets all that something has taken. */
export const forgetAllTaken = (tx: Transaction, madeId: string): Promise<unknown> =>
  tx.delete(takenItems).where(eq(takenItems.madeId, madeId));
