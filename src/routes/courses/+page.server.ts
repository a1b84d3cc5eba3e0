import { findCourses } from '$lib/server/library/courses';
import { refreshSystems } from '$lib/server/library/systems';
import { listSystems } from '$lib/server/store/systems';
import { statesOfCourses } from '$lib/server/store/transfers';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ url }) => {
  await refreshSystems();
  const query = url.searchParams.get('q') ?? '';
  return {
    query,
    courses: await findCourses(query),
    systems: await listSystems(),
    states: Object.fromEntries(await statesOfCourses()),
  };
};
