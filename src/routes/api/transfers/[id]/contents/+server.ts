import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { transferById } from '$lib/server/store/transfers';
import { contentsListFor, sourceOf } from '$lib/server/transfer/source';
import type { RequestHandler } from './$types';

const Query = z.object({ filter: z.string().max(300).default('') });

/** What can be ticked in the source; of it what holds the words of the filter. */
export const GET: RequestHandler = async ({ params, url }) => {
  const query = Query.safeParse(Object.fromEntries(url.searchParams));
  if (!query.success) error(400, 'Give the words to filter by as ?filter=, 300 characters at most.');
  const transfer = await transferById(params.id);
  const source = transfer && (await sourceOf(transfer));
  if (!source) error(404, 'There is no such transfer.');
  return json(await contentsListFor(source, query.data.filter));
};
