import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { transferById } from '$lib/server/store/transfers';
import { contentsItemsFor, sourceOf } from '$lib/server/transfer/source';
import type { RequestHandler } from './$types';

const Query = z.object({
  kind: z.enum(['quiz', 'bank', 'loose']),
  node: z.string().max(1000).default(''),
  filter: z.string().max(300).default(''),
  from: z.coerce.number().int().nonnegative().max(10_000_000).default(0),
});

/** Items of a quiz, of a bank, or of what stands in none: a page of them from a place on. */
export const GET: RequestHandler = async ({ params, url }) => {
  const query = Query.safeParse(Object.fromEntries(url.searchParams));
  if (!query.success) error(400, z.prettifyError(query.error));
  const transfer = await transferById(params.id);
  const source = transfer && (await sourceOf(transfer));
  if (!source) error(404, 'There is no such transfer.');
  const { kind, node: nodeId, filter, from } = query.data;
  return json(await contentsItemsFor(source, { of: { kind, nodeId }, filter, from }));
};
