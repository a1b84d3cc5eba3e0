import type { ParamMatcher } from '@sveltejs/kit';
import { QUIZ_VIEWS } from '$lib/shared/quizzes';

export const match = ((param: string): param is (typeof QUIZ_VIEWS)[number] =>
  (QUIZ_VIEWS as readonly string[]).includes(param)) satisfies ParamMatcher;
