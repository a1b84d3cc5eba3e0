import { randomUUID } from 'node:crypto';
import { and, desc, eq } from 'drizzle-orm';
import {
  layoutHeader,
  sayLayout,
  type ColumnRole,
  type KnownLayout,
  type TableLayout,
  cut,
} from '@alforja/core';
import type { LayoutRow } from '../../shared/types.ts';
import { db, type Transaction } from './database.ts';
import { layoutCodec, looksCodec } from './documents/layouts.ts';
import { rolesCodec } from './documents/ownRubrics.ts';
import { knownLayouts } from './schema.ts';

type Kind = (typeof knownLayouts.$inferSelect)['kind'];

const rowsOf = (kind: Kind) =>
  db.select().from(knownLayouts).where(eq(knownLayouts.kind, kind)).orderBy(desc(knownLayouts.createdAt));

/** What the columns of tables of rubrics with a certain header say, the one confirmed last first. */
export const listRubricLayouts = async (): Promise<TableLayout[]> =>
  (await rowsOf('rubrics')).map(({ looks, layout }) => ({
    header: looksCodec.read(looks),
    roles: rolesCodec.read(layout),
  }));

/** How documents and tables of questions are laid out that look alike, the one confirmed last first. */
export const listQuestionLayouts = async (): Promise<KnownLayout[]> =>
  (await rowsOf('questions')).map(({ name, looks, layout }) => ({
    name,
    looks: looksCodec.read(looks),
    layout: layoutCodec.read(layout),
  }));

/** All of them as a list shows them, the oldest first. */
export async function listKnownLayouts(): Promise<LayoutRow[]> {
  const rows = await db.select().from(knownLayouts).orderBy(knownLayouts.createdAt);
  return rows.map(({ id, kind, name, layout, createdAt }) => ({
    id,
    kind,
    name,
    says: kind === 'rubrics' ? rolesCodec.read(layout).join(', ') : sayLayout(layoutCodec.read(layout)),
    createdAt,
  }));
}

/** What looks the same is laid out the same: the layout confirmed last stands. */
async function keep(
  tx: Transaction,
  row: Pick<typeof knownLayouts.$inferInsert, 'kind' | 'name' | 'looks' | 'layout'>,
): Promise<void> {
  await tx
    .delete(knownLayouts)
    .where(and(eq(knownLayouts.kind, row.kind), eq(knownLayouts.looks, row.looks)));
  await tx.insert(knownLayouts).values({ ...row, id: randomUUID(), createdAt: Date.now() });
}

// What they look like is looked up by its text, so it is written without a version.
const looksText = (looks: readonly string[]): string => JSON.stringify(looks);

/** From now on tables of rubrics with this header are read like this. */
export async function keepRubricLayout(
  tx: Transaction,
  header: readonly string[],
  roles: readonly ColumnRole[],
): Promise<void> {
  const named = header.filter((h) => h.trim() !== '').join(', ');
  await keep(tx, {
    kind: 'rubrics',
    name: cut(named, 200) || 'Table',
    looks: looksText(layoutHeader(header)),
    layout: rolesCodec.write(roles),
  });
}

/** From now on documents and tables of questions that look like this are read like this. */
export const keepQuestionLayout = (tx: Transaction, { name, looks, layout }: KnownLayout): Promise<void> =>
  keep(tx, { kind: 'questions', name, looks: looksText(looks), layout: layoutCodec.write(layout) });

/** @returns whether there was such a layout */
export async function renameKnownLayout(tx: Transaction, id: string, name: string): Promise<boolean> {
  const rows = await tx.update(knownLayouts).set({ name }).where(eq(knownLayouts.id, id)).returning();
  return rows.length > 0;
}

/** @returns whether there was such a layout */
export async function removeKnownLayout(tx: Transaction, id: string): Promise<boolean> {
  const rows = await tx.delete(knownLayouts).where(eq(knownLayouts.id, id)).returning();
  return rows.length > 0;
}
