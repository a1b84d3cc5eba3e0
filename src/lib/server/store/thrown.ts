import { eq, isNotNull, type SQL } from 'drizzle-orm';
import { db, type Transaction } from './database.ts';
import type { batches, made, packages, snapshots, transfers } from './schema.ts';

/** Tables whose rows can be thrown away and brought back. */
type Throwing = typeof made | typeof packages | typeof transfers | typeof batches | typeof snapshots;

/**
 * How a row of a table is thrown away, or brought back where no moment (ms) is given.
 * @returns whether there is such a row
 */
export const throwing =
  (table: Throwing) =>
  async (tx: Transaction, id: string, at: number | null): Promise<boolean> => {
    const changed = await tx
      .update(table)
      .set({ thrownAt: at })
      .where(eq(table.id, id))
      .returning({ id: table.id });
    return changed.length > 0;
  };

/** What was thrown away of a table. @param name what a row is called, in terms of this table */
export const thrownOf = async (
  table: Throwing,
  name: SQL<string>,
): Promise<{ id: string; name: string; thrownAt: number }[]> =>
  (
    await db
      .select({ id: table.id, name, thrownAt: table.thrownAt })
      .from(table)
      .where(isNotNull(table.thrownAt))
  ).map((row) => ({ ...row, thrownAt: row.thrownAt! }));
