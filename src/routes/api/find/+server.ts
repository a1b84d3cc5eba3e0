import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { findEverything } from '$lib/server/library/finding';
import type { RequestHandler } from './$types';

const Query = z.object({ q: z.string().max(200) });
/** Hits a group while somebody types. */
const FEW = 5;

export const GET: RequestHandler = async ({ url }) => {
  const query = Query.safeParse({ q: url.searchParams.get('q') ?? '' });
  if (!query.success) error(400, 'Search with at most 200 characters as ?q=');
  return json(await findEverything(query.data.q, FEW));
};
