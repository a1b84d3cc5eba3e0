import { quizItems } from '../model/quizzes.ts';
import type { Check } from './check.ts';

/** An item that stands in no quiz and no bank, beside others that do. */
export const itemUnused: Check<'item-unused'> = {
  code: 'item-unused',
  severity: 'note',
  whole: ({ quizzes, banks, items }) => {
    const used = new Set([...quizzes.flatMap(quizItems), ...banks.flatMap((b) => b.items)]);
    if (used.size === 0) return [];
    return items
      .filter((i) => !used.has(i.id))
      .map((i) => ({ node: i.id, path: i.origin?.path ?? null, params: {} }));
  },
};
