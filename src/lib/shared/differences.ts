import type { JudgedDifference } from './transfers.ts';

/** Differences of an arrival, those of one sort together: many share one line that unfolds. */

/** What a difference is told apart by, without its words. */
export type DifferenceFacts = Pick<
  JudgedDifference,
  'id' | 'about' | 'itemState' | 'sort' | 'items' | 'mend' | 'decision'
>;

/** Differences of one sort. */
export interface DifferenceSort<D> {
  readonly id: string;
  readonly sort: Pick<DifferenceFacts, 'about' | 'itemState' | 'sort'>;
  readonly differences: readonly D[];
}

export interface SortedDifferences<D> {
  readonly open: readonly D[];
  /** One line each. */
  readonly single: readonly D[];
  /** One line for many. */
  readonly groups: readonly DifferenceSort<D>[];
  readonly accepted: readonly D[];
  /** What can be put right in the course at once. */
  readonly settable: readonly D[];
  /** What comes right by going out once more. */
  readonly sendable: readonly D[];
}

const AGAIN: ReadonlySet<string> = new Set(['resend', 'write']);
/** So many differences of one sort have a line each; more share one. Of questions the seam shows each anyway. */
const FEW_QUESTIONS = 1;
const FEW = 5;

const sortKey = ({ about, itemState, sort }: DifferenceFacts): string =>
  [about, itemState ?? '', ...[...sort].sort()].join(' ');

export function sortDifferences<D extends DifferenceFacts>(differences: readonly D[]): SortedDifferences<D> {
  const open = differences.filter((d) => d.decision === null);
  const bySort = new Map<string, D[]>();
  for (const d of open) {
    const key = sortKey(d);
    if (bySort.has(key)) bySort.get(key)!.push(d);
    else bySort.set(key, [d]);
  }
  const groups = [...bySort]
    .filter(([, list]) => list.length > (list[0]!.about === 'item' ? FEW_QUESTIONS : FEW))
    .map(([id, list]) => {
      const { about, itemState, sort } = list[0]!;
      return { id, sort: { about, itemState, sort }, differences: list };
    })
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

/** Several differences at once, as a page names them: by their ids, or by what they have in common. */
export type DifferencesMeant =
  { readonly ids: readonly string[] } | { readonly sort: string } | { readonly all: 'settable' | 'sendable' };

/** The differences that are meant. */
export function differencesMeant<D extends DifferenceFacts>(
  { settable, sendable, groups, open, accepted }: SortedDifferences<D>,
  meant: DifferencesMeant,
): readonly D[] {
  if ('all' in meant) return meant.all === 'settable' ? settable : sendable;
  if ('sort' in meant) return groups.find((g) => g.id === meant.sort)?.differences ?? [];
  const ids = new Set(meant.ids);
  return [...open, ...accepted].filter((d) => ids.has(d.id));
}

/** A sort with the first of its differences in words. */
export interface DifferenceGroupShown extends Omit<DifferenceSort<never>, 'differences'> {
  readonly count: number;
  readonly first: readonly JudgedDifference[];
}

/** The differences of an arrival as its page brings them. */
export interface DifferencesShown {
  readonly open: number;
  readonly accepted: number;
  /** Whether anything is otherwise at the landing. */
  readonly misplaced: boolean;
  /** The first of those with a line each, and how many these are. */
  readonly single: readonly JudgedDifference[];
  readonly singles: number;
  readonly groups: readonly DifferenceGroupShown[];
  readonly firstAccepted: readonly JudgedDifference[];
  readonly settable: number;
  readonly sendable: number;
  /** What sending again would undo of what was mended, in words. */
  readonly undoes: readonly string[];
}
