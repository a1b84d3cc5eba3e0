import { error } from '@sveltejs/kit';
import { batchById } from '$lib/server/services/batches';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const batch = await batchById(params.id);
  if (!batch) error(404, 'There is no such batch.');
  return { batch };
};
