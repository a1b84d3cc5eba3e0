import type { Difference, Mend } from '@alforja/core';
import type { JudgedDifference } from '$lib/shared/transfers';
import { plural } from '../format';
import { FACET_NAMES } from '../seam/rows';

/** What is done about a difference, as its button says. */
export const mendWords: Readonly<Record<Mend['do'], string>> = {
  set: 'Fix in course',
  remove: 'Remove from course',
  resend: 'Send again',
  write: 'Write again',
  renew: 'Recreate in course',
};

/** Differences of one sort, which share one line that unfolds. */
export interface DifferenceGroup {
  readonly id: string;
  /** "tolerance changed: 17 questions". */
  readonly says: string;
  readonly differences: readonly JudgedDifference[];
  /** Whether the seam below shows each in its place. */
  readonly inSeam: boolean;
}

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
/** So many differences of one sort have a line each; more share one. Of questions the seam shows each anyway. */
const FEW_QUESTIONS = 1;
const FEW = 5;

/** What is otherwise at the landing, for many at once. */
const LANDING_NAMES: Readonly<Record<string, string>> = {
  section: 'other section',
  name: 'other name',
  visibility: 'other visibility',
  copy: 'second copy',
  extra: 'not in the plan',
  review: 'other review settings',
  'not-there': 'not in the outline of the course',
  attachment: 'attached otherwise',
  locked: 'locked',
};

function groupSays({ about, itemState, sort }: JudgedDifference, n: number): string {
  if (about === 'item' && itemState !== 'altered') return `${plural(n, 'question')} ${itemState}`;
  if (about === 'family') return `${plural(n, 'exercise')} with other numbers`;
  if (about === 'file') return `${plural(n, 'file')} ${sort.join(', ')}`;
  if (about === 'landing') return `${LANDING_NAMES[sort[0] ?? ''] ?? sort.join(', ')}: ${plural(n, 'thing')}`;
  const facets = sort.map((s) => FACET_NAMES[s as Difference['facet']] ?? s).join(', ');
  return `${facets}: ${about === 'item' ? plural(n, 'question') : plural(n, 'quiz or bank', 'quizzes and banks')}`;
}

const sortKey = ({ about, itemState, sort }: JudgedDifference): string =>
  [about, itemState ?? '', ...[...sort].sort()].join(' ');

export function sortDifferences(differences: readonly JudgedDifference[]): SortedDifferences {
  const open = differences.filter((d) => d.decision === null);
  const bySort = new Map<string, JudgedDifference[]>();
  for (const d of open) bySort.set(sortKey(d), [...(bySort.get(sortKey(d)) ?? []), d]);
  const groups = [...bySort]
    .filter(([, list]) => list.length > (list[0]!.about === 'item' ? FEW_QUESTIONS : FEW))
    .map(([id, list]) => ({
      id,
      says: groupSays(list[0]!, list.length),
      differences: list,
      inSeam: list[0]!.about === 'item',
    }))
    .sort((a, b) => b.differences.length - a.differences.length);
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
  new Set(differences.flatMap((d) => (d.decision ? d.items : [])));
