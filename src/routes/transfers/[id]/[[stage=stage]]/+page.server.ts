import { error } from '@sveltejs/kit';
import { transferPage } from '$lib/server/transfer/page';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const page = await transferPage(params.id, params.stage);
  if (!page) error(404, 'There is no such transfer.');
  return page;
};
