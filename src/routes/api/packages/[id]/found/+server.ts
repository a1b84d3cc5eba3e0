import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { roomFound } from '$lib/server/library/room';
import { packageFile } from '$lib/server/store/packages';
import type { RequestHandler } from './$types';

const words = z.string().max(200).default('');
const Query = z.object({ q: words, key: words });

/** Places of the items that words find. */
export const GET: RequestHandler = async ({ params, url }) => {
  const query = Query.safeParse(Object.fromEntries(url.searchParams));
  if (!query.success) error(400, 'Filter with at most 200 characters as ?q= or ?key=');
  const held = await packageFile(params.id);
  if (!held) error(404, 'There is no such package.');
  return json(await roomFound(held, { query: query.data.q, key: query.data.key }));
};
