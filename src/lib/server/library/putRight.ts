import { MAX_EDITS, partOfEdit, sayEdit, sayRefusal, type Edit } from '@alforja/core';
import type { LayerView, StepView } from '../../shared/edits.ts';
import { write, type Transaction } from '../store/database.ts';
import { addStep, setUndone, stepsOf, type EditStep, type NewStep } from '../store/editSteps.ts';
import { itemsNamed } from '../store/items.ts';
import { queueJobAnew } from '../store/jobs.ts';
import { announceSubject } from '../store/news.ts';
import { putRightShown } from '../store/packages.ts';
import { layerOf } from './layers.ts';
import { worked } from './worked.ts';

/** Putting right what was read: steps of edits over a package, taken back and brought back. */

/** Why a change was not taken, in words. */
export class NotTaken extends Error {}

/** Shows a package by its layer as it stands now; until then it is shown as it was. */
async function shownAnew(tx: Transaction, id: string): Promise<void> {
  await queueJobAnew(tx, 'read', id);
  await announceSubject(tx, id);
}

/** Adds edits to the layer of a package, as one step. @returns its id */
export const putRight = (packageId: string, step: NewStep): Promise<string> =>
  write(async (tx) => {
    if (step.edits.length + (step.takesBack ?? []).length === 0)
      throw new NotTaken('There is nothing to change.');
    const before = (await stepsOf(packageId, tx)).reduce((n, s) => n + s.edits.length, 0);
    if (before + step.edits.length > MAX_EDITS)
      throw new NotTaken(
        `A package takes ${MAX_EDITS} changes; there are ${before}, and these are ${step.edits.length}.`,
      );
    const id = await addStep(tx, packageId, step);
    await shownAnew(tx, packageId);
    return id;
  });

/** Makes the repairs of findings of a reading as one step. @param at places of the findings, from 0 */
export async function repairFindings(
  packageId: string,
  readingId: string,
  at: readonly number[],
): Promise<{ edits: number }> {
  const edits = await worked('repairs', { packageId, readingId, at });
  if (edits === null)
    throw new NotTaken('What was found has changed meanwhile. Look at it again; nothing was changed.');
  await putRight(packageId, { way: 'repair', edits });
  return { edits: edits.length };
}

/**
 * Takes every change back that stands over one thing, as a step that can be undone like others.
 * @param part only those of this part of it (`partOfEdit`)
 * @returns whether there was any
 */
export async function asItCame(
  packageId: string,
  node: string,
  part: string | null = null,
): Promise<boolean> {
  const { edits, from, steps } = layerOf(await stepsOf(packageId));
  const takesBack = edits.flatMap((edit, n) => {
    const { step, at } = from[n]!;
    const meant = edit.node === node && (part === null || partOfEdit(edit) === part);
    return meant ? [{ step: steps[step]!.id, at }] : [];
  });
  if (takesBack.length === 0) return false;
  await putRight(packageId, { way: 'hand', edits: [], takesBack });
  return true;
}

/** The parts of a thing that were changed, each once. */
export async function changedParts(packageId: string, node: string): Promise<string[]> {
  const { edits } = layerOf(await stepsOf(packageId));
  return [...new Set(edits.filter((e) => e.node === node).map(partOfEdit))];
}

/** Takes one step back, or brings it back. @returns whether there is one */
export const setTakenBack = (packageId: string, step: string, back: boolean): Promise<boolean> =>
  write(async (tx) => {
    const there = await setUndone(tx, packageId, step, back ? Date.now() : null);
    if (there) await shownAnew(tx, packageId);
    return there;
  });

/** What undoing takes back: the last step that stands. */
const undoable = (steps: readonly EditStep[]): EditStep | undefined =>
  steps.findLast((s) => s.undoneAt === null);

/** What redoing brings back: the first of the steps after the last that stands. */
function redoable(steps: readonly EditStep[]): EditStep | undefined {
  const last = undoable(steps)?.at ?? -1;
  return steps.find((s) => s.at > last);
}

/** Undoes the last step, or redoes the one that was undone last. @returns whether there was one */
export const undoOrRedo = (packageId: string, what: 'undo' | 'redo'): Promise<boolean> =>
  write(async (tx) => {
    const steps = await stepsOf(packageId, tx);
    const step = what === 'undo' ? undoable(steps) : redoable(steps);
    if (!step) return false;
    await setUndone(tx, packageId, step.id, what === 'undo' ? Date.now() : null);
    await shownAnew(tx, packageId);
    return true;
  });

/** How many changes stand over a package, and what undoing and redoing would do. */
export async function layerView(packageId: string): Promise<LayerView> {
  const steps = await stepsOf(packageId);
  const standing = steps.filter((s) => s.undoneAt === null);
  const { edits } = layerOf(steps);
  const [undo, redo] = [undoable(steps), redoable(steps)];
  return {
    changes: edits.length,
    refused: standing.reduce((n, s) => n + s.refused.length, 0),
    undo: undo ? sayStep(undo) : null,
    redo: redo ? sayStep(redo) : null,
  };
}

/** A step in a few words. */
const sayStep = ({ edits, takesBack }: EditStep): string => {
  const [first] = edits;
  if (!first) return `${takesBack.length} changes taken back`;
  return edits.length === 1 ? sayEdit(first) : `${sayEdit(first)}, and ${edits.length - 1} more`;
};

/** Edits of one step that the history names. */
const MOST_NAMED = 40;

/** Everything that was put right in a package, the latest first. */
export async function historyOf(packageId: string): Promise<StepView[]> {
  const steps = await stepsOf(packageId);
  const shown = steps.map((s) => shownFirst(s));
  const name = await namesOf(
    packageId,
    shown.flatMap((list) =>
      list.flatMap(({ edit }) => [edit.node ?? [], 'item' in edit ? edit.item : []].flat()),
    ),
  );
  return steps
    .map((s, n): StepView => {
      const why = new Map(s.refused.map((r) => [r.at, r.why]));
      return {
        id: s.id,
        madeAt: s.madeAt,
        way: s.way,
        undoneAt: s.undoneAt,
        count: s.edits.length,
        takesBack: s.takesBack.length,
        refused: s.refused.length,
        edits: shown[n]!.map(({ edit, at }) => ({
          name: name(edit.node ?? ('path' in edit ? edit.path : null) ?? ''),
          says: sayEdit(edit, name),
          refused: why.has(at) ? sayRefusal(why.get(at)!) : null,
        })),
      };
    })
    .reverse();
}

function shownFirst({ edits, refused }: EditStep): { edit: Edit; at: number }[] {
  const bad = new Set(refused.map((r) => r.at));
  const all = edits.map((edit, at) => ({ edit, at }));
  return [...all.filter((e) => bad.has(e.at)), ...all.filter((e) => !bad.has(e.at))].slice(0, MOST_NAMED);
}

/** What things of a package are called, those that were left out too. @throws WorkTrouble */
export async function namesOf(packageId: string, ids: readonly string[]): Promise<(id: string) => string> {
  const shown = ids.length > 0 ? await putRightShown(packageId) : null;
  if (!shown) return (id) => id;
  const names = new Map(shown.leftOut.map(({ id, title }) => [id, title]));
  for (const [id, { name }] of await itemsNamed(shown.readingId, [...new Set(ids)])) names.set(id, name);
  const others = [...new Set(ids)].filter((id) => !names.has(id));
  const called = others.length > 0 ? await worked('names', { packageId, ids: others }) : [];
  others.forEach((id, n) => names.set(id, called[n]!));
  return (id) => names.get(id) ?? id;
}
