import { randomUUID } from 'node:crypto';
import { asc, eq } from 'drizzle-orm';
import type { ReadingRule } from '@alforja/core';
import type { RuleRow } from '../../shared/types.ts';
import { db, type Reading, type Transaction } from './database.ts';
import { readingRules } from './schema.ts';

export const listRules = (on: Reading = db): Promise<RuleRow[]> =>
  on.select().from(readingRules).orderBy(asc(readingRules.createdAt));

/** Keeps a reading; the same field of the same origin has one meaning. */
export async function keepRule(tx: Transaction, rule: ReadingRule): Promise<void> {
  const same = (await listRules(tx)).find(
    (r) => r.origin === rule.origin && r.label.toLowerCase() === rule.label.toLowerCase(),
  );
  if (same) await tx.delete(readingRules).where(eq(readingRules.id, same.id));
  await tx.insert(readingRules).values({ ...rule, id: randomUUID(), createdAt: Date.now() });
}

/** @returns whether there was such a rule */
export async function changeRule(
  tx: Transaction,
  id: string,
  change: Pick<ReadingRule, 'name' | 'means'>,
): Promise<boolean> {
  const { name, means } = change;
  const rows = await tx
    .update(readingRules)
    .set({ name, means })
    .where(eq(readingRules.id, id))
    .returning({ id: readingRules.id });
  return rows.length > 0;
}

/** @returns whether there was such a rule */
export async function removeRule(tx: Transaction, id: string): Promise<boolean> {
  const rows = await tx
    .delete(readingRules)
    .where(eq(readingRules.id, id))
    .returning({ id: readingRules.id });
  return rows.length > 0;
}
