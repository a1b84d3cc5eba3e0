import type { CourseListing } from '$lib/shared/courses';
import { plural } from '../format';

/** "2 quizzes, 3 banks, 1 link", or that there is nothing. */
export function holds(c: Pick<CourseListing, 'quizzes' | 'banks' | 'rubrics' | 'links'>): string {
  const parts = [
    c.quizzes > 0 ? plural(c.quizzes, 'quiz', 'quizzes') : '',
    c.banks > 0 ? plural(c.banks, 'bank') : '',
    c.rubrics > 0 ? plural(c.rubrics, 'rubric') : '',
    c.links > 0 ? plural(c.links, 'link') : '',
  ].filter((p) => p !== '');
  return parts.length > 0 ? parts.join(', ') : 'holds nothing yet';
}
