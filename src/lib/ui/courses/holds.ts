import type { CourseListing } from '$lib/shared/courses';
import { plural } from '../format';

type Held = Pick<CourseListing, 'quizzes' | 'banks' | 'rubrics' | 'links'>;

/** Whether there is something to take from a course. */
export const holdsAnything = (c: Held): boolean => c.quizzes + c.banks + c.rubrics + c.links > 0;

/** "2 quizzes, 3 banks, 1 link", or that there is nothing. */
export function holds(c: Held): string {
  const parts = [
    c.quizzes > 0 ? plural(c.quizzes, 'quiz', 'quizzes') : '',
    c.banks > 0 ? plural(c.banks, 'bank') : '',
    c.rubrics > 0 ? plural(c.rubrics, 'rubric') : '',
    c.links > 0 ? plural(c.links, 'link') : '',
  ].filter((p) => p !== '');
  return parts.length > 0 ? parts.join(', ') : 'holds nothing yet';
}
