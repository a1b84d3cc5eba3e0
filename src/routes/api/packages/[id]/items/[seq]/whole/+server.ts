import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { packageItem } from '$lib/server/library/packages';
import type { RequestHandler } from './$types';

const Seq = z.coerce.number().int().min(0);

/** An item with its scoring, to be changed where it stands. */
export const GET: RequestHandler = async ({ params }) => {
  const seq = Seq.safeParse(params.seq);
  const item = seq.success ? await packageItem(params.id, seq.data) : null;
  if (!item) error(404, 'There is no such item.');
  return json(item);
};
