/** Plain values of the one search, as they cross between server and screens. */

export type SearchGroupName =
  'courses' | 'containers' | 'items' | 'rubrics' | 'packages' | 'transfers' | 'receipts' | 'layouts';

export interface SearchHit {
  readonly name: string;
  readonly href: string;
  /** Where it stands, and what else tells it from others. */
  readonly note: string;
  /** The kind of question, for items. */
  readonly kind: string | null;
}

export interface SearchGroup {
  readonly of: SearchGroupName;
  readonly hits: readonly SearchHit[];
  /** Whether there are more than these. */
  readonly more: boolean;
}

export const SEARCH_GROUPS: Readonly<Record<SearchGroupName, string>> = {
  courses: 'Courses',
  containers: 'Quizzes and banks',
  items: 'Questions',
  rubrics: 'Rubrics',
  packages: 'Packages',
  transfers: 'Transfers',
  receipts: 'Receipts',
  layouts: 'Layouts of tables and fields',
};
