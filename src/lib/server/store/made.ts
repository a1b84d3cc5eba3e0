import { randomUUID } from 'node:crypto';
import { and, desc, eq, inArray, isNull, lt, sql } from 'drizzle-orm';
import type { Draft, Item } from '@alforja/core';
import { db, type Reading, type Transaction } from './database.ts';
import { draftCodec } from './documents/made.ts';
import { itemCodec } from './documents/packages.ts';
import { made, takenItems } from './schema.ts';
import { throwing } from './thrown.ts';

type Row = typeof made.$inferSelect;

/** A quiz or a bank that is made here. */
export interface Made extends Omit<Row, 'draft'> {
  readonly draft: Draft;
}

const read = (row: Row): Made => ({ ...row, draft: draftCodec.read(row.draft) });

export async function madeById(id: string, on: Reading = db): Promise<Made | null> {
  const [row] = await on
    .select()
    .from(made)
    .where(and(eq(made.id, id), isNull(made.thrownAt)));
  return row ? read(row) : null;
}

/** Those of a kind, the one changed last first. */
export async function listMade(kind: Draft['kind']): Promise<Made[]> {
  const rows = await db
    .select()
    .from(made)
    .where(and(eq(made.kind, kind), isNull(made.thrownAt)))
    .orderBy(desc(made.changedAt));
  return rows.map(read);
}

/** What is made here that a package was set down from, as it stands now. */
export async function madeAs(packageId: string): Promise<Pick<Made, 'id' | 'kind' | 'title'> | null> {
  const [row] = await db
    .select({ id: made.id, kind: made.kind, title: made.title })
    .from(made)
    .where(and(eq(made.packageId, packageId), isNull(made.thrownAt)));
  return row ?? null;
}

export async function insertMade(tx: Transaction, draft: Draft): Promise<string> {
  const id = randomUUID();
  const now = Date.now();
  await tx.insert(made).values({
    id,
    kind: draft.kind,
    title: draft.title,
    draft: draftCodec.write(draft),
    createdAt: now,
    changedAt: now,
  });
  return id;
}

/**
 * Keeps a draft in the place of the version it was made from.
 * @returns the version it is now; null where it has been changed meanwhile, or is gone
 */
export async function changeMade(
  tx: Transaction,
  id: string,
  from: number,
  draft: Draft,
): Promise<number | null> {
  const done = await tx
    .update(made)
    .set({ draft: draftCodec.write(draft), title: draft.title, version: from + 1, changedAt: Date.now() })
    .where(and(eq(made.id, id), eq(made.version, from), eq(made.kind, draft.kind), isNull(made.thrownAt)))
    .returning({ id: made.id });
  return done.length > 0 ? from + 1 : null;
}

/** Notes the package that a version was set down as. */
export const noteSetDown = (
  tx: Transaction,
  id: string,
  packageId: string,
  packageVersion: number,
): Promise<unknown> => tx.update(made).set({ packageId, packageVersion }).where(eq(made.id, id));

export const setMadeThrown = throwing(made);

/** Removes for good what was thrown away before a moment, with the items it had taken. */
export async function purgeMade(tx: Transaction, before: number): Promise<void> {
  const gone = await tx.delete(made).where(lt(made.thrownAt, before)).returning({ id: made.id });
  for (const { id } of gone) await tx.delete(takenItems).where(eq(takenItems.madeId, id));
}

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
