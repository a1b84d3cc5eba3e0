import { error } from '@sveltejs/kit';
import { quizHead } from '$lib/server/library/quizzes';
import type { QuizView } from '$lib/shared/quizzes';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const quiz = await quizHead(params.id, params.quiz);
  if (!quiz) error(404, 'There is no such quiz, or its package is being read.');
  return { quiz, view: params.view as QuizView };
};
