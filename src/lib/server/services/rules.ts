import { randomUUID } from 'node:crypto';
import { asc, eq } from 'drizzle-orm';
import type { ReadingRule } from '@alforja/core';
import type { PackageSummary, RuleRow } from '../../shared/types.ts';
import { db, write } from '../db/client.ts';
import { packages, readingRules } from '../db/schema.ts';
import { readAgain } from './packages.ts';

export const listRules = (): Promise<RuleRow[]> =>
  db.select().from(readingRules).orderBy(asc(readingRules.createdAt));

/** Confirms a reading; the same field of the same origin has one meaning. */
export async function confirmRule(rule: ReadingRule): Promise<void> {
  const same = (await listRules()).find(
    (r) => r.origin === rule.origin && r.label.toLowerCase() === rule.label.toLowerCase(),
  );
  await write(async (tx) => {
    if (same) await tx.delete(readingRules).where(eq(readingRules.id, same.id));
    await tx.insert(readingRules).values({ ...rule, id: randomUUID(), createdAt: Date.now() });
  });
  await readOrigin(rule.origin);
}

export async function changeRule(id: string, change: Pick<ReadingRule, 'name' | 'means'>): Promise<boolean> {
  const [had] = await db.select().from(readingRules).where(eq(readingRules.id, id));
  if (!had) return false;
  await write((tx) => tx.update(readingRules).set(change).where(eq(readingRules.id, id)));
  if (had.means !== change.means) await readOrigin(had.origin);
  return true;
}

export async function removeRule(id: string): Promise<boolean> {
  const [had] = await db.select().from(readingRules).where(eq(readingRules.id, id));
  if (!had) return false;
  await write((tx) => tx.delete(readingRules).where(eq(readingRules.id, id)));
  await readOrigin(had.origin);
  return true;
}

/** Packages of an origin are read once more. */
async function readOrigin(origin: string): Promise<void> {
  const all = await db
    .select({ id: packages.id, summary: packages.summary, state: packages.state })
    .from(packages);
  const touched = all.filter((p) => {
    const summary = p.summary ? (JSON.parse(p.summary) as PackageSummary) : null;
    return p.state === 'ready' && summary !== null && (origin === '*' || summary.origin === origin);
  });
  for (const { id } of touched) await readAgain(id);
}
