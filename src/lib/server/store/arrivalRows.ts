import { and, asc, eq, gte, inArray, lt, sql } from 'drizzle-orm';
import { z } from 'zod';
import { STATES, type SeamRow, type State } from '@alforja/core';
import { db, type Transaction } from './database.ts';
import { seamRowCodec } from './documents/seam.ts';
import { arrivalRows } from './schema.ts';

/** Puts rows of a comparison in, from a place in their order on. */
export async function insertArrivalRows(
  tx: Transaction,
  seamId: string,
  rows: readonly SeamRow[],
  from: number,
): Promise<void> {
  if (rows.length === 0) return;
  await tx.insert(arrivalRows).values(
    rows.map((row, n) => ({
      seamId,
      at: from + n,
      state: row.state,
      source: row.left?.id ?? null,
      arrived: row.right?.id ?? null,
      purposed: row.purpose.length > 0,
      row: seamRowCodec.write(row),
    })),
  );
}

export const removeArrivalRows = (tx: Transaction, seamId: string): Promise<unknown> =>
  tx.delete(arrivalRows).where(eq(arrivalRows.seamId, seamId));

const Differing = z.object({
  at: z.array(z.number()),
  states: z.array(z.enum(STATES)),
  sources: z.array(z.string().nullable()),
});

/** A row that is not simply intact. */
export interface DifferingRow {
  readonly at: number;
  readonly state: State;
  readonly source: string | null;
}

/** How many rows a comparison has, and those of them that differ or were changed on purpose. */
export async function arrivalStates(
  seamId: string,
): Promise<{ readonly rows: number; readonly differing: readonly DifferingRow[] }> {
  const [all] = await db.all<{ rows: number }>(
    sql`SELECT count(*) AS rows FROM arrival_rows WHERE seam_id = ${seamId}`,
  );
  const [some] = await db.all<{ columns: string }>(
    sql`SELECT json_object('at', json_group_array(at), 'states', json_group_array(state),
        'sources', json_group_array(source)) AS columns
      FROM (SELECT * FROM arrival_rows WHERE seam_id = ${seamId} AND (state <> 'intact' OR purposed) ORDER BY at)`,
  );
  const { at, states, sources } = Differing.parse(JSON.parse(some!.columns));
  const differing = at.map((place, n) => ({ at: place, state: states[n]!, source: sources[n]! }));
  return { rows: all!.rows, differing };
}

/** The rows of a comparison at some places, in order. */
export async function arrivalRowsAt(
  seamId: string,
  places: readonly number[],
): Promise<(readonly [at: number, row: SeamRow])[]> {
  const rows = await db
    .select({ at: arrivalRows.at, row: arrivalRows.row })
    .from(arrivalRows)
    .where(and(eq(arrivalRows.seamId, seamId), inArray(arrivalRows.at, [...places])))
    .orderBy(asc(arrivalRows.at));
  return rows.map(({ at, row }) => [at, seamRowCodec.read(row)]);
}

/** Items that are there on both sides, by their ids. */
export async function arrivedPairs(seamId: string): Promise<(readonly [source: string, arrived: string])[]> {
  const rows = await db
    .select({ source: arrivalRows.source, arrived: arrivalRows.arrived })
    .from(arrivalRows)
    .where(eq(arrivalRows.seamId, seamId));
  return rows.flatMap(({ source, arrived }) =>
    source === null || arrived === null ? [] : [[source, arrived] as const],
  );
}

const REMOVED_AT_ONCE = 1000;

/**
 * Removes some rows of a comparison that no transfer shows, and that no check under way is making.
 * @returns whether there were any
 */
export async function removeStrayArrivalRows(tx: Transaction): Promise<boolean> {
  // Comparisons are looked up one after the other in the index: their rows are very many.
  const [stray] = await tx.all<{ seamId: string; least: number }>(sql`
    WITH RECURSIVE seams(id) AS (
      SELECT min(seam_id) FROM arrival_rows
      UNION ALL
      SELECT (SELECT min(seam_id) FROM arrival_rows WHERE seam_id > seams.id) FROM seams WHERE seams.id IS NOT NULL
    )
    SELECT seams.id AS seamId, (SELECT min(at) FROM arrival_rows WHERE seam_id = seams.id) AS least FROM seams
    WHERE seams.id IS NOT NULL
      AND NOT EXISTS (SELECT 1 FROM transfers t WHERE t.seam_id = seams.id OR instr(t.sending, seams.id) > 0)
    LIMIT 1`);
  if (!stray) return false;
  const { seamId, least } = stray;
  await tx
    .delete(arrivalRows)
    .where(
      and(
        eq(arrivalRows.seamId, seamId),
        gte(arrivalRows.at, least),
        lt(arrivalRows.at, least + REMOVED_AT_ONCE),
      ),
    );
  return true;
}
