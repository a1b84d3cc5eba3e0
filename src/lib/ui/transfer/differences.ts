import type { Mend } from '@alforja/core';
import type { JudgedDifference } from '$lib/shared/transfers';
import { plural } from '../format';

/** What is done about a difference, as its button says. */
export const mendWords: Readonly<Record<Mend['do'], string>> = {
  set: 'Set it there',
  remove: 'Take it out there',
  resend: 'Send again',
  write: 'Write it again',
  renew: 'Make it anew there',
};

/** Differences that share one line: they stand in the seam, each in its place. */
interface DifferenceGroup {
  readonly id: 'altered' | 'missing' | 'extra';
  readonly differences: readonly JudgedDifference[];
}

/** "17 questions altered; the seam below shows each, unfolded by Enter." */
export const groupSays = ({ id, differences }: DifferenceGroup): string =>
  `${plural(differences.length, 'question')} ${id}; the seam below shows each${id === 'altered' ? ', unfolded by Enter' : ''}.`;

/** The differences of an arrival as the list shows them. */
interface SortedDifferences {
  readonly open: readonly JudgedDifference[];
  /** One line each. */
  readonly single: readonly JudgedDifference[];
  readonly groups: readonly DifferenceGroup[];
  readonly accepted: readonly JudgedDifference[];
  /** What can be put right in the course at once. */
  readonly settable: readonly JudgedDifference[];
  /** What comes right by going out once more. */
  readonly sendable: readonly JudgedDifference[];
}

const AGAIN: ReadonlySet<string> = new Set(['resend', 'write']);
/** So many items that are missing or extra have a line each; more share one. */
const FEW = 6;

export function sortDifferences(differences: readonly JudgedDifference[]): SortedDifferences {
  const open = differences.filter((d) => d.decision === null);
  const groups = (['altered', 'missing', 'extra'] as const)
    .map((id) => ({ id, differences: open.filter((d) => d.itemState === id) }))
    .filter((g) => g.differences.length > (g.id === 'altered' ? 0 : FEW));
  const grouped = new Set(groups.flatMap((g) => g.differences));
  return {
    open,
    single: open.filter((d) => !grouped.has(d)),
    groups,
    accepted: differences.filter((d) => d.decision !== null),
    settable: open.filter((d) => d.mend !== null && !AGAIN.has(d.mend)),
    sendable: open.filter((d) => d.mend !== null && AGAIN.has(d.mend)),
  };
}

/** Ids of source items whose difference somebody took as it is. */
export const acceptedItems = (differences: readonly JudgedDifference[]): ReadonlySet<string> =>
  new Set(differences.flatMap((d) => (d.decision && d.item !== null ? [d.item] : [])));
