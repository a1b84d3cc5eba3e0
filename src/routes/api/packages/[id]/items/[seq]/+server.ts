import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { viewItem } from '$lib/shared/itemView';
import { packageItem } from '$lib/server/library/packages';
import { packageById } from '$lib/server/store/packages';
import type { RequestHandler } from './$types';

const Seq = z.coerce.number().int().min(0);

export const GET: RequestHandler = async ({ params }) => {
  const seq = Seq.safeParse(params.seq);
  const held = seq.success ? await packageById(params.id) : null;
  const item = held?.tree && seq.success ? await packageItem(params.id, seq.data) : null;
  if (!item) error(404, 'There is no such item.');
  return json(viewItem(item, held!.tree!.findings));
};
