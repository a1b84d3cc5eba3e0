import { looseIds, quizItems, type Quiz, type Tree } from '@alforja/core';
import type { ItemRow } from '$lib/shared/types';

/** What the outline can point the list at. */
export type Place =
  | { readonly kind: 'all' | 'loose' | 'links' | 'files' }
  | { readonly kind: 'quiz' | 'bank'; readonly id: string }
  | { readonly kind: 'findings'; readonly which: 'decide' | 'notes' };

/** Each item of a quiz once, drawn ones too. */
export const itemsInQuiz = (quiz: Quiz): string[] => [...new Set(quizItems(quiz))];

/** Items that stand in no quiz and no bank. */
export function looseItems(tree: Tree, rows: readonly ItemRow[]): ItemRow[] {
  const loose = new Set(
    looseIds(
      tree,
      rows.map((r) => r.id),
    ),
  );
  return rows.filter((r) => loose.has(r.id));
}

/** The rows a place shows, in its own order. */
export function rowsAt(place: Place, tree: Tree, rows: readonly ItemRow[]): readonly ItemRow[] {
  const byId = new Map(rows.map((r) => [r.id, r]));
  const pick = (ids: readonly string[]): ItemRow[] => ids.flatMap((id) => byId.get(id) ?? []);
  switch (place.kind) {
    case 'quiz': {
      const quiz = tree.quizzes.find((q) => q.id === place.id);
      return quiz ? pick(itemsInQuiz(quiz)) : [];
    }
    case 'bank':
      return pick(tree.banks.find((b) => b.id === place.id)?.items ?? []);
    case 'loose':
      return looseItems(tree, rows);
    case 'findings': {
      const named = new Set(
        tree.findings
          .filter((f) => (place.which === 'notes') === (f.severity === 'note'))
          .map((f) => f.where.node),
      );
      return rows.filter((r) => named.has(r.id));
    }
    case 'all':
    case 'links':
    case 'files':
      return rows;
  }
}
