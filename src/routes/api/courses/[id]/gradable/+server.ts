import { error, json } from '@sveltejs/kit';
import { gradableInCourse } from '$lib/server/transfer/gradable';
import type { RequestHandler } from './$types';

/** What a rubric can be attached to in a course. */
export const GET: RequestHandler = async ({ params }) => {
  const found = await gradableInCourse(params.id);
  if (!found) error(404, 'The course has not been read yet.');
  return json(found);
};
