import { runner } from '$lib/server/jobs';
import type { RequestHandler } from './$types';

/** Cancels a job. */
export const DELETE: RequestHandler = async ({ params }) => {
  await runner.cancel(params.id);
  return new Response(null, { status: 204 });
};
