import type { ColumnRole } from '@alforja/core';

/** How the columns of a table were found, in words. */
export const FOUND_BY = {
  remembered: 'The columns are read as you confirmed them for tables with this header.',
  header: 'The columns were found from their header. Look whether they are right.',
  values: 'There is no header; the columns were guessed from the cells. Please check.',
  hand: 'The columns are read as you say.',
} as const;

const PARTS = [
  ['title', 'name'],
  ['points', 'points'],
  ['description', 'description'],
  ['feedback', 'feedback'],
] as const;

/** Levels that can be chosen even where a table has fewer columns. */
const LEAST_LEVELS = 8;

/** What a column of a table of this many columns can say, in words. */
export const roleChoices = (width: number): readonly (readonly [ColumnRole, string])[] => [
  ['skip', 'not read'],
  ['rubric', 'rubric’s name'],
  ['criterion', 'criterion'],
  ['criterionDescription', 'what the criterion means'],
  ['weight', 'weight'],
  ['outcome', 'outcome'],
  ['named', 'a level, named by the header'],
  ...PARTS.map(([part, word]): [ColumnRole, string] => [part, `the row’s level: ${word}`]),
  ...Array.from({ length: Math.max(LEAST_LEVELS, width) }, (_, n) =>
    PARTS.map(([part, word]): [ColumnRole, string] => [`${part} ${n + 1}`, `level ${n + 1}: ${word}`]),
  ).flat(),
];

/** The roles of so many columns with one of them set otherwise. */
export const withRole = (
  roles: readonly ColumnRole[],
  width: number,
  column: number,
  role: ColumnRole,
): ColumnRole[] => Array.from({ length: width }, (_, at) => (at === column ? role : (roles[at] ?? 'skip')));
