import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { foldName, proposeName, writeRubrics, type Rubric } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { newRubric } from '@alforja/core/edit';
import { db, write } from '../db/client.ts';
import { ownRubrics } from '../db/schema.ts';
import { storeBytes } from '../files.ts';
import { bringIn } from './packages.ts';
import { originalOf, OWN, rubricAt } from './rubrics.ts';

const text = z.string().max(20_000);
const id = z.string().min(1).max(1000);
const Level = z.object({
  id,
  title: text,
  points: z.object({ low: z.number(), high: z.number() }).nullable(),
  description: text,
  feedback: text,
});
const Criterion = z.object({
  id,
  title: text,
  description: text,
  weight: z.number().nullable(),
  outcome: text.nullable(),
  levels: z.array(Level).max(50),
});

/** What of a rubric can be changed; identity, attachments and provenance cannot. */
export const RubricContent = z.object({
  title: z.string().trim().min(1, 'A rubric needs a name.').max(500),
  description: text,
  mode: z.enum(['points', 'percentage', 'unscored']),
  freeComments: z.boolean().default(false),
  criteria: z.array(Criterion).max(500),
});
export type RubricContent = z.infer<typeof RubricContent>;

const rowOf = async (rubricId: string) =>
  (await db.select().from(ownRubrics).where(eq(ownRubrics.id, rubricId)))[0] ?? null;

async function keep(
  rubric: Omit<Rubric, 'id'>,
  over: Partial<typeof ownRubrics.$inferInsert> = {},
): Promise<string> {
  const made = randomUUID();
  const now = Date.now();
  const own: Rubric = { ...rubric, id: made, attachedTo: [], origin: null };
  await write((tx) =>
    tx
      .insert(ownRubrics)
      .values({ id: made, rubric: JSON.stringify(own), createdAt: now, changedAt: now, ...over }),
  );
  return made;
}

/** An empty rubric to begin with. @returns its id */
export const makeRubric = (): Promise<string> => keep(newRubric('new', 'New rubric'));

/** Keeps rubrics that were read from a table. @returns their ids */
export async function keepRubrics(rubrics: readonly Rubric[]): Promise<string[]> {
  const ids: string[] = [];
  for (const r of rubrics) ids.push(await keep(r));
  return ids;
}

/**
 * Copies a rubric from wherever it is kept: on its own, or in step with its original.
 * @returns its id; null where there is no such rubric
 */
export async function copyRubric(place: string, rubricId: string, follows: boolean): Promise<string | null> {
  const held = await rubricAt(place, rubricId);
  if (!held) return null;
  const basis = JSON.stringify(held.rubric);
  if (follows) return keep(held.rubric, { fromPlace: place, fromRubric: rubricId, basis, follows });
  const rows = await db.select({ rubric: ownRubrics.rubric }).from(ownRubrics);
  const taken = new Set(rows.map((r) => foldName((JSON.parse(r.rubric) as Rubric).title)));
  const title = place === OWN ? proposeName(held.rubric.title, [], 'Rubric', taken) : held.rubric.title;
  return keep({ ...held.rubric, title }, { fromPlace: place, fromRubric: rubricId, basis });
}

/** Keeps what was changed of a rubric of one's own. @returns why not, in words; null when it was kept */
export async function changeRubric(rubricId: string, content: RubricContent): Promise<string | null> {
  const row = await rowOf(rubricId);
  if (!row) return 'There is no such rubric of your own.';
  if (row.follows) return 'It follows another. Make it independent first, then change it.';
  const rubric: Rubric = { ...(JSON.parse(row.rubric) as Rubric), ...content };
  await save(rubricId, { rubric: JSON.stringify(rubric) });
  return null;
}

const save = (rubricId: string, change: Partial<typeof ownRubrics.$inferInsert>): Promise<unknown> =>
  write((tx) =>
    tx
      .update(ownRubrics)
      .set({ ...change, changedAt: Date.now() })
      .where(eq(ownRubrics.id, rubricId)),
  );

/** Takes over what has changed in the original of a follower. */
export async function takeChange(rubricId: string): Promise<boolean> {
  const original = await originalOf(rubricId);
  if (!original?.follows || !original.now) return false;
  const rubric: Rubric = { ...original.now.rubric, id: rubricId, attachedTo: [], origin: null };
  await save(rubricId, { rubric: JSON.stringify(rubric), basis: JSON.stringify(original.now.rubric) });
  return true;
}

/** From now on a follower is a copy that can be changed. */
export async function makeIndependent(rubricId: string): Promise<boolean> {
  if (!(await rowOf(rubricId))?.follows) return false;
  await save(rubricId, { follows: false });
  return true;
}

export async function removeRubric(rubricId: string): Promise<boolean> {
  if (!(await rowOf(rubricId))) return false;
  await write((tx) => tx.delete(ownRubrics).where(eq(ownRubrics.id, rubricId)));
  return true;
}

/**
 * Writes rubrics into one package, as they are now, so that they can be brought into a course.
 * @returns the package's id; null where one of them is no longer there
 */
export async function packRubrics(
  wanted: readonly { readonly place: string; readonly rubric: string }[],
): Promise<string | null> {
  const held = await Promise.all(wanted.map((w) => rubricAt(w.place, w.rubric)));
  const rubrics = held.flatMap((h) => (h ? [h.rubric] : []));
  if (rubrics.length === 0 || rubrics.length < wanted.length) return null;
  const { bytes } = await writeRubrics(rubrics, 'case1.0', nodePlatform);
  const name = `${rubrics[0]!.title.replace(/[^\p{L}\p{N}]+/gu, '-').slice(0, 60) || 'rubric'}.json`;
  return (await bringIn(name, await storeBytes(bytes), 'made')).package.id;
}
