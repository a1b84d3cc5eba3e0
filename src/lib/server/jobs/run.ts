import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { STEPS, type Run, type RunStep, type StepName } from '../../shared/courses.ts';
import { write } from '../db/client.ts';
import { transfers } from '../db/schema.ts';
import { announceSubject } from './events.ts';

/** The record of one sending, kept after every step so that it can be taken up again where it stood. */

export const runOf = (row: { readonly run: string | null }): Run | null =>
  row.run ? (JSON.parse(row.run) as Run) : null;

export interface RunOrder {
  readonly by: string;
  readonly only?: readonly string[];
  readonly sectionsAs?: Run['sectionsAs'];
  /** Only reads back and compares again. */
  readonly checkOnly?: boolean;
}

/** A new run; what earlier runs of the transfer made there, and what they set aside, stays known. */
export function newRun(before: Run | null, order: RunOrder): Run {
  const passed = new Set<StepName>(order.checkOnly ? ['export', 'read', 'convert', 'upload', 'wait'] : []);
  return {
    id: randomUUID(),
    by: order.by,
    only: order.only ?? null,
    startedAt: Date.now(),
    endedAt: null,
    steps: STEPS.map((name): RunStep => ({
      name,
      state: passed.has(name) ? 'passed' : 'waiting',
      startedAt: null,
      endedAt: null,
      says: passed.has(name) ? 'not needed: only looked at again' : '',
    })),
    imports: [],
    unseen: before?.failure
      ? [...before.unseen, ...before.imports.map((i) => i.job)]
      : (before?.unseen ?? []),
    created: before?.created ?? [],
    attached: before?.attached ?? [],
    setAside: before?.setAside ?? [],
    notes: order.checkOnly ? (before?.notes ?? []) : [],
    failure: null,
    sectionsAs: order.sectionsAs ?? 'source',
    undone: null,
  };
}

/** Changes the record of a transfer's run and tells the open pages. */
export async function saveRun(transferId: string, run: Run): Promise<Run> {
  await write((tx) =>
    tx
      .update(transfers)
      .set({ run: JSON.stringify(run) })
      .where(eq(transfers.id, transferId)),
  );
  announceSubject(transferId);
  return run;
}

export const withStep = (run: Run, name: StepName, change: Partial<RunStep>): Run => ({
  ...run,
  steps: run.steps.map((s) => (s.name === name ? { ...s, ...change } : s)),
});
