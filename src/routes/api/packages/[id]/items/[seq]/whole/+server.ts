import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { wholeItem } from '$lib/server/library/packages';
import type { RequestHandler } from './$types';

const Seq = z.coerce.number().int().min(0);

/** An item with its scoring, to be changed where it stands, and what of it was changed. */
export const GET: RequestHandler = async ({ params }) => {
  const seq = Seq.safeParse(params.seq);
  const item = seq.success ? await wholeItem(params.id, seq.data) : null;
  if (!item) error(404, 'There is no such item.');
  return new Response(item, { headers: { 'Content-Type': 'application/json' } });
};
