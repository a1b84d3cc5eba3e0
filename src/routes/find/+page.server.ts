import { findCourses } from '$lib/server/library/courses';
import { search } from '$lib/server/library/packages';
import { findRubrics } from '$lib/server/library/heldRubrics';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ url }) => {
  const query = (url.searchParams.get('q') ?? '').slice(0, 200);
  return {
    query,
    ...(await search(query)),
    rubrics: (await findRubrics(query)).slice(0, 20),
    courses: query.trim() === '' ? [] : (await findCourses(query)).slice(0, 20),
  };
};
