import { wishOf, withoutEdits, type Edit } from '@alforja/core';
import { noteStep, stepsOf, type EditStep } from '../store/editSteps.ts';
import type { Transaction } from '../store/database.ts';
import { tickWith } from '../store/ticks.ts';
import type { LayerDone } from '../work/puttingRight.ts';

/** The steps of a package as one layer: what was taken back is not in it. */
export interface StandingLayer {
  readonly edits: readonly Edit[];
  /** For each of them its step, and its place in that. */
  readonly from: readonly { readonly step: number; readonly at: number }[];
  readonly steps: readonly EditStep[];
  /** Ids of the steps that stand, in order. */
  readonly standing: readonly string[];
}

export function layerOf(steps: readonly EditStep[]): StandingLayer {
  const all = steps.flatMap((s, step) => s.edits.map((edit, at) => ({ edit, step, at })));
  const back = new Set(
    steps.flatMap((s) => (s.undoneAt === null ? s.takesBack.map((r) => `${r.step} ${r.at}`) : [])),
  );
  const gone = new Set(
    all.flatMap(({ step, at }, n) => {
      const { id, undoneAt } = steps[step]!;
      return undoneAt === null && !back.has(`${id} ${at}`) ? [] : [n];
    }),
  );
  const kept = withoutEdits(
    all.map(({ edit }) => edit),
    gone,
  );
  return {
    edits: kept.map(({ edit }) => edit),
    from: kept.map(({ at }) => ({ step: all[at]!.step, at: all[at]!.at })),
    steps,
    standing: steps.flatMap((s) => (s.undoneAt === null ? [s.id] : [])),
  };
}

/** The edits that a package is shown with: those that stand and could be done. */
export async function appliedEdits(packageId: string): Promise<readonly Edit[]> {
  const { edits, from, steps } = layerOf(await stepsOf(packageId));
  const bad = new Set(steps.flatMap((s, step) => s.refused.map((r) => `${step} ${r.at}`)));
  return edits.filter((_, n) => !bad.has(`${from[n]!.step} ${from[n]!.at}`));
}

/** Edits that stand over a package and that it is not yet shown with. @param steps those that it is shown with */
export async function pendingEdits(packageId: string, steps: readonly string[]): Promise<readonly Edit[]> {
  const shown = new Set(steps);
  const layer = layerOf(await stepsOf(packageId));
  return layer.edits.filter((_, n) => !shown.has(layer.steps[layer.from[n]!.step]!.id));
}

/**
 * Keeps what applying a layer came to: what each edit saw when it was first applied, what could not be done,
 * and that what took the place of something ticked is ticked.
 */
export async function noteLayer(
  tx: Transaction,
  packageId: string,
  { from, steps }: StandingLayer,
  { was, refused, became }: LayerDone,
): Promise<void> {
  const edits = steps.map((s) => [...s.edits]);
  const refusals = steps.map((): { at: number; why: LayerDone['refused'][number]['why'] }[] => []);
  const changed = new Set<number>();
  from.forEach(({ step, at }, n) => {
    const edit = edits[step]![at]!;
    if (edit.was !== undefined || was[n] === undefined) return;
    edits[step]![at] = { ...edit, was: was[n] } as Edit;
    changed.add(step);
  });
  for (const { at: n, why } of refused) {
    const { step, at } = from[n]!;
    refusals[step]!.push({ at, why });
  }
  for (const [n, step] of steps.entries()) {
    const asBefore = JSON.stringify(refusals[n]) === JSON.stringify(step.refused);
    if (step.undoneAt === null && (changed.has(n) || !asBefore))
      await noteStep(tx, step.id, { edits: edits[n]!, refused: refusals[n]! });
  }
  for (const one of became) await tickWith(tx, packageId, one);
}

/** Whether two layers want the same, whatever stood there before. */
export const sameEdits = (a: readonly Edit[], b: readonly Edit[]): boolean =>
  a.length === b.length && a.every((edit, at) => wishOf(edit) === wishOf(b[at]!));
