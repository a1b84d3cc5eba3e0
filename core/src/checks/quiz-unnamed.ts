import type { Check } from './check.ts';

/** A quiz under no name arrives under none, or under that of whoever exported it. */
export const quizUnnamed: Check<'quiz-unnamed'> = {
  code: 'quiz-unnamed',
  severity: 'warning',
  whole: ({ quizzes }) =>
    quizzes
      .filter((q) => q.title.trim() === '')
      .map((q) => ({ node: q.id, path: q.origin?.path ?? null, params: {} })),
};
