import { json } from '@sveltejs/kit';
import { disconnect } from '$lib/server/library/systems';
import type { RequestHandler } from './$types';

/** Takes a connection away; what it brought stays. */
export const DELETE: RequestHandler = async ({ params }) => {
  await disconnect(params.id);
  return json({});
};
