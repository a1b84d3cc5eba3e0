import { error, json } from '@sveltejs/kit';
import { roomRows } from '$lib/server/library/room';
import { packageFile } from '$lib/server/store/packages';
import type { RequestHandler } from './$types';

/** What the list in the reading room shows of every item. */
export const GET: RequestHandler = async ({ params }) => {
  const held = await packageFile(params.id);
  if (!held) error(404, 'There is no such package.');
  return json(await roomRows(held));
};
