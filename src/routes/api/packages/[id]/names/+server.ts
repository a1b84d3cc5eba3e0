import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { roomNames } from '$lib/server/library/room';
import { packageFile } from '$lib/server/store/packages';
import { MOST_NAMES } from '$lib/shared/room';
import type { RequestHandler } from './$types';

const Places = z.array(z.coerce.number().int().nonnegative()).min(1).max(MOST_NAMES);

/** What the items at some places are called: ?at=0,1,2 */
export const GET: RequestHandler = async ({ params, url }) => {
  const places = Places.safeParse(url.searchParams.get('at')?.split(','));
  if (!places.success) error(400, `Ask for 1 to ${MOST_NAMES} places of items, as in ?at=0,1,2`);
  const held = await packageFile(params.id);
  if (!held) error(404, 'There is no such package.');
  return json(await roomNames(held, places.data));
};
