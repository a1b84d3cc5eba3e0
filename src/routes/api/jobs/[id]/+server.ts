import { cancel } from '$lib/server/jobs/runner';
import type { RequestHandler } from './$types';

/** Cancels a job. */
export const DELETE: RequestHandler = async ({ params }) => {
  await cancel(params.id);
  return new Response(null, { status: 204 });
};
