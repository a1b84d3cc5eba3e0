import { z } from 'zod';
import { foldName, proposeName, type Rubric, cut } from '@alforja/core';
import { distinctIds, newRubric } from '@alforja/core/edit';
import { write } from '../store/database.ts';
import { storeBytes } from '../store/files.ts';
import { changeOwnRubric, insertOwnRubric, listOwnRubrics, removeOwnRubric } from '../store/ownRubrics.ts';
import { bringIn } from './packages.ts';
import { MOST_CRITERIA, type RubricAsked, type ShownRubric } from '../work/heldRubrics.ts';
import { originalOf, OWN, rubricAt, rubricFile } from './heldRubrics.ts';

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
  criteria: z.array(Criterion).max(MOST_CRITERIA),
});
export type RubricContent = z.infer<typeof RubricContent>;

export const makeRubric = (): Promise<string> =>
  write((tx) => insertOwnRubric(tx, newRubric('new', 'New rubric')));

/** Why a rubric is not taken, in words. */
export class RubricTrouble extends Error {}

/** @throws RubricTrouble where a rubric is longer than one of one's own can be */
function needShort({ criteria }: Pick<ShownRubric, 'criteria'>): void {
  if (criteria > MOST_CRITERIA)
    throw new RubricTrouble(
      `It has ${criteria} criteria; a rubric that is kept here has ${MOST_CRITERIA} at most. Split it where it was made.`,
    );
}

/** Keeps rubrics that were read from a table. @returns their ids @throws RubricTrouble */
export async function keepRubrics(rubrics: readonly Rubric[]): Promise<string[]> {
  for (const { criteria } of rubrics) needShort({ criteria: criteria.length });
  return write(async (tx) => {
    const ids: string[] = [];
    for (const r of rubrics) ids.push(await insertOwnRubric(tx, distinctIds(r)));
    return ids;
  });
}

/**
 * Copies a rubric from wherever it is kept: on its own, or in step with its original.
 * @returns its id; null where there is no such rubric
 * @throws RubricTrouble
 */
export async function copyRubric(place: string, rubricId: string, follows: boolean): Promise<string | null> {
  const held = await rubricAt(place, rubricId);
  if (!held) return null;
  needShort(held);
  const from = { fromPlace: place, fromRubric: rubricId, basis: held.rubric, follows };
  return write(async (tx) => {
    const taken = new Set((await listOwnRubrics(tx)).map((r) => foldName(r.rubric.title)));
    const copied = !follows && place === OWN;
    const title = copied ? proposeName(held.rubric.title, [], 'Rubric', taken) : held.rubric.title;
    return insertOwnRubric(tx, { ...distinctIds(held.rubric), title }, from);
  });
}

/** Keeps what was changed of a rubric of one's own. @returns why not, in words; null when it was kept */
export async function changeRubric(rubricId: string, content: RubricContent): Promise<string | null> {
  let refused: string | null = 'There is no such rubric of your own.';
  await write((tx) =>
    changeOwnRubric(tx, rubricId, (before) => {
      refused = before.follows ? 'It follows another. Make it independent first, then change it.' : null;
      return refused === null ? { rubric: { ...before.rubric, ...content } } : null;
    }),
  );
  return refused;
}

/**
 * Takes over what has changed in the original of a follower.
 * @returns whether there was something to take
 * @throws RubricTrouble
 */
export async function takeChange(rubricId: string): Promise<boolean> {
  const original = await originalOf(rubricId);
  if (!original?.now) return false;
  needShort(original.now);
  const now = original.now.rubric;
  return write((tx) =>
    changeOwnRubric(tx, rubricId, ({ follows }) =>
      follows
        ? { rubric: { ...distinctIds(now), id: rubricId, attachedTo: [], origin: null }, basis: now }
        : null,
    ),
  );
}

/** From now on a follower is a copy that can be changed. */
export const makeIndependent = (rubricId: string): Promise<boolean> =>
  write((tx) => changeOwnRubric(tx, rubricId, ({ follows }) => (follows ? { follows: false } : null)));

/** @returns whether there was one */
export const removeRubric = (rubricId: string): Promise<boolean> =>
  write((tx) => removeOwnRubric(tx, rubricId));

/** The longest name of a file of rubrics, in characters. */
const LONGEST_NAME = 60;

/**
 * Writes rubrics into one package, as they are now, so that they can be brought into a course.
 * @returns the package's id; null where one of them is no longer there
 */
export async function packRubrics(wanted: readonly RubricAsked[]): Promise<string | null> {
  const file = await rubricFile(wanted, 'case1.0');
  if (!file) return null;
  const stem = cut(file.title.replace(/[^\p{L}\p{N}]+/gu, '-'), LONGEST_NAME);
  return (await bringIn(`${stem || 'rubric'}.json`, await storeBytes(file.bytes), 'made')).package.id;
}
