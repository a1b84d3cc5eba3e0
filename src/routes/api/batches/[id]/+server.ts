import { error, json } from '@sveltejs/kit';
import { batchView } from '$lib/server/transfer/batches';
import type { RequestHandler } from './$types';

/** How a batch stands, the troubled courses first. */
export const GET: RequestHandler = async ({ params }) => {
  const batch = await batchView(params.id);
  if (!batch) error(404, 'There is no such batch.');
  return json(batch);
};
