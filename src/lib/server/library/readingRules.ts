import { RulesFile, type ReadingRule } from '@alforja/core';
import { write } from '../store/database.ts';
import {
  keepQuestionLayout,
  keepRubricLayout,
  listQuestionLayouts,
  listRubricLayouts,
  removeKnownLayout,
  renameKnownLayout,
} from '../store/knownLayouts.ts';
import { changeRule as change, keepRule, listRules, removeRule as remove } from '../store/readingRules.ts';
import { readAnew } from './reading.ts';

/** What was confirmed about how files are read: private fields, tables, documents. Whatever changes is read anew. */

/** Confirms a reading; packages that it holds for are read anew. */
export async function confirmRule(rule: ReadingRule): Promise<void> {
  await write((tx) => keepRule(tx, rule));
  await readAnew();
}

/** @returns whether there was such a rule */
export async function changeRule(id: string, to: Pick<ReadingRule, 'name' | 'means'>): Promise<boolean> {
  const changed = await write((tx) => change(tx, id, to));
  await readAnew();
  return changed;
}

/** @returns whether there was such a rule */
export async function removeRule(id: string): Promise<boolean> {
  const removed = await write((tx) => remove(tx, id));
  await readAnew();
  return removed;
}

/** @returns whether there was such a layout */
export const renameLayout = (id: string, name: string): Promise<boolean> =>
  write((tx) => renameKnownLayout(tx, id, name));

/** @returns whether there was such a layout */
export async function removeLayout(id: string): Promise<boolean> {
  const removed = await write((tx) => removeKnownLayout(tx, id));
  await readAnew();
  return removed;
}

/** Everything that was confirmed, for the command line and for other installations. */
export async function rulesFile(): Promise<RulesFile> {
  const rules = await listRules();
  const tables = await listRubricLayouts();
  return {
    rules: rules.map(({ name, origin, label, means }) => ({ name, origin, label, means })),
    layouts: await listQuestionLayouts(),
    tables: tables.map(({ header, roles }) => ({ header: [...header], roles: [...roles] })),
  };
}

/** Confirms everything that a file of rules says; what is here already is replaced where it is about the same. */
export async function takeRules({ rules, layouts, tables }: RulesFile): Promise<number> {
  await write(async (tx) => {
    for (const rule of rules) await keepRule(tx, rule);
    for (const layout of layouts) await keepQuestionLayout(tx, layout);
    for (const { header, roles } of tables) await keepRubricLayout(tx, header, roles);
  });
  await readAnew();
  return rules.length + layouts.length + tables.length;
}
