/** Plain values of the desk: what waits for a person, and what was done. */

/** In the order in which they matter. */
export const WAITING_SORTS = [
  'stopped',
  'open',
  'batch',
  'unread',
  'system',
  'behind',
  'unchecked',
  'draft',
  'findings',
] as const;
export type WaitingSort = (typeof WAITING_SORTS)[number];

/** One thing that waits for a decision. */
export interface Waiting {
  readonly sort: WaitingSort;
  readonly name: string;
  /** What it is about, in a few words. */
  readonly says: string;
  /** What to do next, and where. */
  readonly next: string;
  readonly href: string;
  /** Since when it waits; null where nobody knows. */
  readonly at: number | null;
}
