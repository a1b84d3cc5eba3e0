import { error, json } from '@sveltejs/kit';
import { batchById } from '$lib/server/services/batches';
import type { RequestHandler } from './$types';

/** How a batch stands, the troubled courses first. */
export const GET: RequestHandler = async ({ params }) => {
  const batch = await batchById(params.id);
  if (!batch) error(404, 'There is no such batch.');
  return json(batch);
};
