import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { BankAt, ItemFilter } from '@alforja/core';
import { shelfView } from '$lib/server/library/making';
import type { RequestHandler } from './$types';

/** Rows that one request can have. */
const MOST = 500;
const Body = BankAt.extend({
  filter: ItemFilter,
  from: z.number().int().nonnegative(),
  count: z.number().int().min(1).max(MOST),
  but: z.string().max(100).nullable().default(null),
});

/** Some items of a bank, narrowed by a filter. */
export const POST: RequestHandler = async ({ request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'That is not in the form expected.');
  const view = await shelfView(body.data);
  if (!view) error(404, 'That bank is not there any more, or is being read.');
  return json(view);
};
