import { randomUUID } from 'node:crypto';
import { desc, eq } from 'drizzle-orm';
import type { Rubric } from '@alforja/core';
import { db, type Reading, type Transaction } from './database.ts';
import { rubricCodec } from './documents/ownRubrics.ts';
import { ownRubrics } from './schema.ts';

type Row = typeof ownRubrics.$inferSelect;

/** A rubric that was made, pasted or copied here, or that follows another. */
export interface OwnRubric extends Omit<Row, 'rubric' | 'basis'> {
  readonly rubric: Rubric;
  /** The original as it was when it was copied or last taken over. */
  readonly basis: Rubric | null;
}

const read = (row: Row): OwnRubric => ({
  ...row,
  rubric: rubricCodec.read(row.rubric),
  basis: rubricCodec.readOptional(row.basis),
});

export async function ownRubricById(id: string, on: Reading = db): Promise<OwnRubric | null> {
  const [row] = await on.select().from(ownRubrics).where(eq(ownRubrics.id, id));
  return row ? read(row) : null;
}

/** The one changed last first. */
export async function listOwnRubrics(on: Reading = db): Promise<OwnRubric[]> {
  return (await on.select().from(ownRubrics).orderBy(desc(ownRubrics.changedAt))).map(read);
}

/** Where a copy comes from. */
type Provenance = Pick<OwnRubric, 'fromPlace' | 'fromRubric' | 'basis' | 'follows'>;

/** Keeps a rubric under an id of its own, attached to nothing. */
export async function insertOwnRubric(
  tx: Transaction,
  rubric: Omit<Rubric, 'id'>,
  from: Provenance = { fromPlace: null, fromRubric: null, basis: null, follows: false },
): Promise<string> {
  const id = randomUUID();
  const now = Date.now();
  await tx.insert(ownRubrics).values({
    ...from,
    id,
    rubric: rubricCodec.write({ ...rubric, id, attachedTo: [], origin: null }),
    basis: from.basis && rubricCodec.write(from.basis),
    createdAt: now,
    changedAt: now,
  });
  return id;
}

/**
 * Changes a rubric by what it is now.
 * @param change answers what is otherwise, or null to leave it
 * @returns whether it was changed
 */
export async function changeOwnRubric(
  tx: Transaction,
  id: string,
  change: (before: OwnRubric) => Partial<Pick<OwnRubric, 'rubric' | 'basis' | 'follows'>> | null,
): Promise<boolean> {
  const before = await ownRubricById(id, tx);
  const wanted = before && change(before);
  if (!wanted) return false;
  const { rubric, basis, follows } = wanted;
  await tx
    .update(ownRubrics)
    .set({
      ...(rubric ? { rubric: rubricCodec.write(rubric) } : {}),
      ...(basis ? { basis: rubricCodec.write(basis) } : {}),
      ...(follows === undefined ? {} : { follows }),
      changedAt: Date.now(),
    })
    .where(eq(ownRubrics.id, id));
  return true;
}

/** @returns whether there was one */
export async function removeOwnRubric(tx: Transaction, id: string): Promise<boolean> {
  const gone = await tx.delete(ownRubrics).where(eq(ownRubrics.id, id)).returning({ id: ownRubrics.id });
  return gone.length > 0;
}
