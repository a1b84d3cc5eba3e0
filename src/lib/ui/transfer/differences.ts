import type { Difference, Mend } from '@alforja/core';
import type { DifferenceFacts } from '$lib/shared/differences';
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

/** "tolerance changed: 17 questions". */
export function groupSays(
  { about, itemState, sort }: Pick<DifferenceFacts, 'about' | 'itemState' | 'sort'>,
  n: number,
): string {
  if (about === 'item' && itemState !== 'altered') return `${plural(n, 'question')} ${itemState}`;
  if (about === 'family') return `${plural(n, 'exercise')} with other numbers`;
  if (about === 'file') return `${plural(n, 'file')} ${sort.join(', ')}`;
  if (about === 'landing') return `${LANDING_NAMES[sort[0] ?? ''] ?? sort.join(', ')}: ${plural(n, 'thing')}`;
  const facets = sort.map((s) => FACET_NAMES[s as Difference['facet']] ?? s).join(', ');
  return `${facets}: ${about === 'item' ? plural(n, 'question') : plural(n, 'quiz or bank', 'quizzes and banks')}`;
}
