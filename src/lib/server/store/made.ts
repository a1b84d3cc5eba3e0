import { randomUUID } from 'node:crypto';
import { and, desc, eq, isNull, lt } from 'drizzle-orm';
import type { Draft } from '@alforja/core';
import { db, type Reading, type Transaction } from './database.ts';
import { draftCodec } from './documents/made.ts';
import { made } from './schema.ts';
import { forgetAllTaken } from './takenItems.ts';
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
  for (const { id } of gone) await forgetAllTaken(tx, id);
}
