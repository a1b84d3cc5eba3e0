import type { LabelRole, Layout, LayoutChoices, QuestionColumn } from '@alforja/core';

/** A layout with one part of it said otherwise. */

const lineOf = (name: string): string => `line ${name}`;

export const withPart = (layout: Layout, part: 'question' | 'choice', to: string): Layout => ({
  ...layout,
  [part]: to,
  sure: 1,
});

/** @param to null: points are not said in the text */
export const withPoints = (layout: Layout, to: string | null): Layout => ({ ...layout, points: to, sure: 1 });

/** Where keys stand; a labelled line that holds them says the key, and no other one does. */
export function withKey(layout: Layout, to: string): Layout {
  const labels = Object.fromEntries(
    Object.entries(layout.labels).map(([name, role]): [string, LabelRole] => {
      if (to.toLowerCase() === lineOf(name).toLowerCase()) return [name, 'key'];
      return [name, role === 'key' && to.startsWith('line ') ? 'noted' : role];
    }),
  );
  return { ...layout, key: to, labels, sure: 1 };
}

/** What a labelled line says. */
export function withLabel(layout: Layout, name: string, role: LabelRole): Layout {
  if (role === 'key') return withKey({ ...layout, labels: { ...layout.labels, [name]: role } }, lineOf(name));
  const wasKey = layout.key === lineOf(name);
  return {
    ...layout,
    labels: { ...layout.labels, [name]: role },
    key: wasKey ? 'none' : layout.key,
    sure: 1,
  };
}

/** The layout of a table whose columns say these things. */
export function layoutOfColumns(columns: NonNullable<LayoutChoices['columns']>): Layout {
  const named = (role: QuestionColumn): string[] =>
    columns.filter((c) => c.role === role).map(({ name }) => name);
  const key = named('correct')[0] ?? named('key')[0];
  return {
    question: named('question')[0] ?? 'none',
    choice: named('choice').join(' | ') || 'none',
    key: key === undefined ? 'none' : lineOf(key),
    labels: Object.fromEntries(
      columns.flatMap(({ name, role }): [string, LabelRole][] =>
        role === 'question' || role === 'choice' || role === 'correct' ? [] : [[name, role]],
      ),
    ),
    points: null,
    sure: 1,
  };
}
