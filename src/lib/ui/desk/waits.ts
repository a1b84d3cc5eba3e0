import type { Waiting, WaitingSort } from '$lib/shared/desk';

/** Things of one sort that are listed on the desk; the rest stands in the list they come from. */
const MOST_OF_A_SORT = 4;

/** Where all things of a sort are listed. */
const LISTS: Readonly<Record<WaitingSort, string>> = {
  stopped: '/transfers?state=stopped',
  open: '/transfers?state=open',
  batch: '/transfers',
  unread: '/packages?show=unreadable',
  system: '/systems',
  behind: '/rubrics',
  unchecked: '/transfers?state=sent',
  draft: '/transfers?state=draft',
  findings: '/packages?show=findings',
};

const NAMES: Readonly<Record<WaitingSort, string>> = {
  stopped: 'Stopped',
  open: 'To decide',
  batch: 'Batch',
  unread: 'Not readable',
  system: 'Not answering',
  behind: 'New version',
  unchecked: 'Not checked',
  draft: 'Draft',
  findings: 'Findings',
};

/** By how much they matter: what failed, what has to be decided, what can wait. */
const TONES: Readonly<Record<WaitingSort, 'brick' | 'ochre' | 'quiet'>> = {
  stopped: 'brick',
  open: 'ochre',
  batch: 'ochre',
  unread: 'brick',
  system: 'brick',
  behind: 'ochre',
  unchecked: 'quiet',
  draft: 'quiet',
  findings: 'ochre',
};

export interface WaitingGroup {
  readonly sort: WaitingSort;
  readonly name: string;
  readonly tone: 'brick' | 'ochre' | 'quiet';
  readonly shown: readonly Waiting[];
  /** How many more there are, and where. */
  readonly more: number;
  readonly href: string;
}

/** What waits, in its order, the sorts apart, each with its first few. */
export function waitingGroups(waiting: readonly Waiting[]): WaitingGroup[] {
  const sorts = [...new Set(waiting.map((w) => w.sort))];
  return sorts.map((sort) => {
    const all = waiting.filter((w) => w.sort === sort);
    return {
      sort,
      name: NAMES[sort],
      tone: TONES[sort],
      shown: all.slice(0, MOST_OF_A_SORT),
      more: Math.max(0, all.length - MOST_OF_A_SORT),
      href: LISTS[sort],
    };
  });
}
