import { error, json } from '@sveltejs/kit';
import { courseById, latestLook } from '$lib/server/services/courses';
import { enqueueOnce } from '$lib/server/services/systems';
import { packageById } from '$lib/server/services/packages';
import type { RequestHandler } from './$types';

/** The latest look into a course, and whether it has been read. */
export const GET: RequestHandler = async ({ params }) => {
  const look = await latestLook(params.id);
  return json({ look, state: look ? ((await packageById(look.packageId))?.state ?? null) : null });
};

/** Looks into a course again. */
export const POST: RequestHandler = async ({ params }) => {
  if (!(await courseById(params.id))) error(404, 'There is no such course in sight.');
  await enqueueOnce('fetch', params.id);
  return json({});
};
