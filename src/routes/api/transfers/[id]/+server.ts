import { error, json } from '@sveltejs/kit';
import { courseState } from '$lib/server/services/courseState';
import { transferById } from '$lib/server/services/transfers';
import type { RequestHandler } from './$types';

/** How a transfer into a course stands: plan, run, what differs and what can be done about it. */
export const GET: RequestHandler = async ({ params }) => {
  const transfer = await transferById(params.id);
  if (!transfer?.destCourse) error(404, 'There is no such transfer into a course.');
  return json(await courseState(transfer));
};
