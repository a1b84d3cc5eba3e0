import type { PouchTotals, SeamRow, State } from '@alforja/core';

/** Both sides of an arrival, row by row; rows come for those that are looked at. */

/** How a row stands; what somebody accepted is told apart from what is open. */
export const SHOWN = ['intact', 'on purpose', 'accepted', 'altered', 'missing', 'extra'] as const;
export type Shown = State | 'on purpose' | 'accepted';

/** How a row stands as one letter; one that was accepted says what it is besides. */
const LETTERS: Readonly<Record<string, readonly [shown: Shown, state: State]>> = {
  i: ['intact', 'intact'],
  p: ['on purpose', 'intact'],
  a: ['altered', 'altered'],
  m: ['missing', 'missing'],
  x: ['extra', 'extra'],
  A: ['accepted', 'altered'],
  M: ['accepted', 'missing'],
};
export const letterOf = (shown: Shown, state: State): string =>
  Object.entries(LETTERS).find(([, said]) => said[0] === shown && said[1] === state)?.[0] ?? 'i';
export const shownBy = (letter: string): Shown => LETTERS[letter]?.[0] ?? 'intact';
export const stateBy = (letter: string): State => LETTERS[letter]?.[1] ?? 'intact';

/** How many rows are shown as what. */
export function countShown(letters: Iterable<string>): Readonly<Record<Shown, number>> {
  const of: Record<Shown, number> = {
    intact: 0,
    'on purpose': 0,
    accepted: 0,
    altered: 0,
    missing: 0,
    extra: 0,
  };
  for (const letter of letters) of[shownBy(letter)] += 1;
  return of;
}

export interface SeamView {
  /** Tells one comparison from the next, and one decision from another. */
  readonly version: string;
  /** One letter a row, in order. */
  readonly states: string;
  /** The first rows. */
  readonly first: readonly SeamRow[];
  readonly totals: { readonly left: PouchTotals; readonly right: PouchTotals };
}

/** Rows that come at once. */
export const ROWS_A_PAGE = 60;
