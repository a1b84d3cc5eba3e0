import type { ReadingRule, TableLayout } from '@alforja/core';
import { listRules } from './readingRules.ts';
import { listLayouts } from './tableLayouts.ts';

/** What is known of how to read files: confirmed readings of private fields, and of tables. */
export interface Known {
  readonly rules: readonly ReadingRule[];
  readonly layouts: readonly TableLayout[];
}

export async function knownReadings(): Promise<Known> {
  const rules = (await listRules()).map(({ name, origin, label, means }) => ({ name, origin, label, means }));
  return { rules, layouts: await listLayouts() };
}
