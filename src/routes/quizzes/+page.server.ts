import { quizzesMade } from '$lib/server/library/making';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({ quizzes: await quizzesMade() });
