import { findCourses } from '$lib/server/services/courses';
import { listBatches } from '$lib/server/services/batches';
import { listSystems, lookAgain } from '$lib/server/services/systems';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ url }) => {
  await lookAgain();
  const query = url.searchParams.get('q') ?? '';
  return {
    query,
    courses: await findCourses(query),
    systems: await listSystems(),
    batches: await listBatches(),
  };
};
