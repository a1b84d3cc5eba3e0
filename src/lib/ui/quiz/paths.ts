import type { QuizView } from '$lib/shared/quizzes';

/** What the pages of a quiz are called. */
export const VIEW_NAMES: Readonly<Record<QuizView, string>> = {
  try: 'Try it',
  draws: 'What students get',
  versions: 'Versions and paper',
};

export const quizPath = (packageId: string, quizId: string, view: QuizView): string =>
  `/packages/${packageId}/quizzes/${encodeURIComponent(quizId)}/${view}`;

/** Where a quiz is asked about. */
export const quizApi = (packageId: string, quizId: string): string =>
  `/api/packages/${packageId}/quizzes/${encodeURIComponent(quizId)}`;
