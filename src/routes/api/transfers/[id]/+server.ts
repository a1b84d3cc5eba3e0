import { error, json } from '@sveltejs/kit';
import { transferById } from '$lib/server/store/transfers';
import { stateOf } from '$lib/server/transfer/state';
import type { RequestHandler } from './$types';

/** How a transfer stands: plan, sending, what differs and what can be done about it. */
export const GET: RequestHandler = async ({ params }) => {
  const transfer = await transferById(params.id);
  if (!transfer) error(404, 'There is no such transfer.');
  return json(await stateOf(transfer));
};
