import { randomUUID } from 'node:crypto';
import { desc, eq } from 'drizzle-orm';
import { layoutHeader, type ColumnRole, type TableLayout } from '@alforja/core';
import { z } from 'zod';
import { codec } from './codec.ts';
import { db, type Transaction } from './database.ts';
import { rolesCodec } from './documents/ownRubrics.ts';
import { tableLayouts } from './schema.ts';

const headerCodec = codec('header of a table', z.array(z.string()));

/** What the columns of tables with a certain header say, the one confirmed last first. */
export async function listLayouts(): Promise<TableLayout[]> {
  const rows = await db.select().from(tableLayouts).orderBy(desc(tableLayouts.createdAt));
  return rows.map(({ header, roles }) => ({
    header: headerCodec.read(header),
    roles: rolesCodec.read(roles),
  }));
}

/** From now on tables with this header are read like this. */
export async function keepLayout(
  tx: Transaction,
  header: readonly string[],
  roles: readonly ColumnRole[],
): Promise<void> {
  // Looked up by its text, so it is written without a version.
  const key = JSON.stringify(layoutHeader(header));
  await tx.delete(tableLayouts).where(eq(tableLayouts.header, key));
  await tx
    .insert(tableLayouts)
    .values({ id: randomUUID(), header: key, roles: rolesCodec.write(roles), createdAt: Date.now() });
}
