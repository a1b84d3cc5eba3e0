import type { ReadingRule } from '@alforja/core';
import { write } from '../store/database.ts';
import { changeRule as change, keepRule, removeRule as remove } from '../store/readingRules.ts';
import { readAnew } from './reading.ts';

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
