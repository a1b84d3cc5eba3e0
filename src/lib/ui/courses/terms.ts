import type { CourseListing } from '$lib/shared/courses';
import type { LineState } from '$lib/shared/transfers';

/** How the courses of a term stand: what of them is done, and what waits. */

export const TERM_STATES = ['done', 'open', 'stopped', 'begun', 'none'] as const;
export type TermState = (typeof TERM_STATES)[number];

export const TERM_STATE_NAMES: Readonly<Record<TermState, string>> = {
  done: 'done',
  open: 'to decide',
  stopped: 'stopped',
  begun: 'begun',
  none: 'nothing sent',
};

const OF_LINE: Readonly<Record<LineState, TermState>> = {
  done: 'done',
  open: 'open',
  stopped: 'stopped',
  sending: 'begun',
  sent: 'begun',
  draft: 'begun',
  'taken-back': 'none',
};

export interface TermCounts {
  readonly term: string;
  readonly counts: Readonly<Record<TermState, number>>;
}

/** Courses by term and state; terms into which nothing goes are left out. */
export function termCounts(
  courses: readonly Pick<CourseListing, 'id' | 'term'>[],
  states: Readonly<Record<string, LineState>>,
): TermCounts[] {
  const terms = new Map<string, Record<TermState, number>>();
  for (const { id, term } of courses) {
    const counts = terms.get(term) ?? { done: 0, open: 0, stopped: 0, begun: 0, none: 0 };
    const state = Object.hasOwn(states, id) ? OF_LINE[states[id]!] : 'none';
    counts[state] += 1;
    terms.set(term, counts);
  }
  return [...terms]
    .filter(([, counts]) => TERM_STATES.some((s) => s !== 'none' && counts[s] > 0))
    .map(([term, counts]) => ({ term, counts }));
}
