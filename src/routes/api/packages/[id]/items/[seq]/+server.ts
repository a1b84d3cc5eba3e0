import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { itemView } from '$lib/server/library/packages';
import type { RequestHandler } from './$types';

const Seq = z.coerce.number().int().min(0);

export const GET: RequestHandler = async ({ params }) => {
  const seq = Seq.safeParse(params.seq);
  const view = seq.success ? await itemView(params.id, seq.data) : null;
  if (!view) error(404, 'There is no such item.');
  return new Response(view, { headers: { 'Content-Type': 'application/json' } });
};
