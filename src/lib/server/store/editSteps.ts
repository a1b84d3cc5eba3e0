import { randomUUID } from 'node:crypto';
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import type { Edit } from '@alforja/core';
import type { EditWay } from '../../shared/edits.ts';
import { db, type Reading, type Transaction } from './database.ts';
import {
  editsCodec,
  refusalsCodec,
  takesBackCodec,
  type EditRef,
  type StepRefusal,
} from './documents/edits.ts';
import { editSteps } from './schema.ts';

/** What somebody changed in a package at once. */
export interface EditStep {
  readonly id: string;
  readonly at: number;
  readonly madeAt: number;
  readonly way: EditWay;
  readonly edits: readonly Edit[];
  readonly refused: readonly StepRefusal[];
  /** Edits of earlier steps that it takes back. */
  readonly takesBack: readonly EditRef[];
  readonly undoneAt: number | null;
}

const stepOf = (row: typeof editSteps.$inferSelect): EditStep => ({
  id: row.id,
  at: row.at,
  madeAt: row.madeAt,
  way: row.way,
  edits: editsCodec.read(row.edits),
  refused: refusalsCodec.readOptional(row.refused) ?? [],
  takesBack: takesBackCodec.readOptional(row.takesBack) ?? [],
  undoneAt: row.undoneAt,
});

/** Every step of a package, those that were taken back too, in order. */
export async function stepsOf(packageId: string, on: Reading = db): Promise<EditStep[]> {
  const rows = await on
    .select()
    .from(editSteps)
    .where(eq(editSteps.packageId, packageId))
    .orderBy(asc(editSteps.at));
  return rows.map(stepOf);
}

/** Ids of the steps that stand, by package, in order: they tell one layer from another. */
export async function standingSteps(on: Reading = db): Promise<Map<string, string[]>> {
  const rows = await on
    .select({ packageId: editSteps.packageId, id: editSteps.id })
    .from(editSteps)
    .where(isNull(editSteps.undoneAt))
    .orderBy(asc(editSteps.at));
  const by = new Map<string, string[]>();
  for (const { packageId, id } of rows) by.set(packageId, [...(by.get(packageId) ?? []), id]);
  return by;
}

/** Ids of the steps that stand over one package, in order. */
export async function standingOf(packageId: string, on: Reading = db): Promise<string[]> {
  const rows = await on
    .select({ id: editSteps.id })
    .from(editSteps)
    .where(and(eq(editSteps.packageId, packageId), isNull(editSteps.undoneAt)))
    .orderBy(asc(editSteps.at));
  return rows.map(({ id }) => id);
}

export interface NewStep {
  readonly way: EditWay;
  readonly edits: readonly Edit[];
  readonly takesBack?: readonly EditRef[];
}

/** Adds a step at the end of a package's layer. @returns its id */
export async function addStep(
  tx: Transaction,
  packageId: string,
  { way, edits, takesBack = [] }: NewStep,
): Promise<string> {
  const [last] = await tx
    .select({ at: sql<number | null>`max(${editSteps.at})` })
    .from(editSteps)
    .where(eq(editSteps.packageId, packageId));
  const id = randomUUID();
  await tx.insert(editSteps).values({
    id,
    packageId,
    at: (last?.at ?? -1) + 1,
    madeAt: Date.now(),
    way,
    edits: editsCodec.write(edits),
    takesBack: takesBack.length === 0 ? null : takesBackCodec.write(takesBack),
  });
  return id;
}

/** Takes a step back, or brings it back. @param at ms; null brings it back. @returns whether there is one */
export async function setUndone(
  tx: Transaction,
  packageId: string,
  id: string,
  at: number | null,
): Promise<boolean> {
  const changed = await tx
    .update(editSteps)
    .set({ undoneAt: at })
    .where(and(eq(editSteps.packageId, packageId), eq(editSteps.id, id)))
    .returning({ id: editSteps.id });
  return changed.length > 0;
}

/** What applying a step came to: what each edit saw, and which could not be done. */
export const noteStep = (
  tx: Transaction,
  id: string,
  { edits, refused }: Pick<EditStep, 'edits' | 'refused'>,
): Promise<unknown> =>
  tx
    .update(editSteps)
    .set({
      edits: editsCodec.write(edits),
      refused: refused.length === 0 ? null : refusalsCodec.write(refused),
    })
    .where(eq(editSteps.id, id));

/** Removes the steps of packages that are gone. */
export const removeStraySteps = (tx: Transaction): Promise<unknown> =>
  tx.delete(editSteps).where(sql`${editSteps.packageId} NOT IN (SELECT id FROM packages)`);
