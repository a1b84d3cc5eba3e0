import { error } from '@sveltejs/kit';
import { bothHead } from '$lib/server/transfer/bothSides';
import type { PageServerLoad } from './$types';

/** A quiz of a transfer, tried on both sides. */
export const load: PageServerLoad = async ({ params }) => {
  const head = await bothHead(params.id, params.quiz);
  if (!head) error(404, 'That quiz did not arrive, or nothing has been compared yet.');
  return { ...head, id: params.id, quiz: params.quiz };
};
