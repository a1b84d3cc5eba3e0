import { error } from '@sveltejs/kit';
import { batchView } from '$lib/server/transfer/batches';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const batch = await batchView(params.id);
  if (!batch) error(404, 'There is no such batch.');
  return { batch };
};
