import { error } from '@sveltejs/kit';
import { courseById, latestLook } from '$lib/server/services/courses';
import { packageById } from '$lib/server/services/packages';
import { enqueueOnce } from '$lib/server/services/systems';
import type { PageServerLoad } from './$types';

const STALE_MS = 5 * 60_000;

export const load: PageServerLoad = async ({ params }) => {
  const course = await courseById(params.id);
  if (!course) error(404, 'There is no such course in sight. Its system may have to be looked at again.');
  const look = await latestLook(course.id);
  if (!look || Date.now() - look.takenAt > STALE_MS) await enqueueOnce('fetch', course.id);
  const held = look ? await packageById(look.packageId) : null;
  return { course, look, held: held ? { ...held, tree: null } : null };
};
