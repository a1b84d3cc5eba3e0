import type { KnownLayout, ReadingRule, TableLayout } from '@alforja/core';
import { listQuestionLayouts, listRubricLayouts } from './knownLayouts.ts';
import { listRules } from './readingRules.ts';

/** What is known of how to read files: confirmed readings of private fields, of tables and of documents. */
export interface Known {
  readonly rules: readonly ReadingRule[];
  /** Of tables of rubrics. */
  readonly layouts: readonly TableLayout[];
  /** Of documents and tables of questions. */
  readonly known: readonly KnownLayout[];
}

export async function knownReadings(): Promise<Known> {
  const rules = (await listRules()).map(({ name, origin, label, means }) => ({ name, origin, label, means }));
  return { rules, layouts: await listRubricLayouts(), known: await listQuestionLayouts() };
}
