import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { packageItem } from '$lib/server/library/packages';
import { changedParts } from '$lib/server/library/putRight';
import type { WholeItem } from '$lib/shared/edits';
import type { RequestHandler } from './$types';

const Seq = z.coerce.number().int().min(0);

/** An item with its scoring, to be changed where it stands, and what of it was changed. */
export const GET: RequestHandler = async ({ params }) => {
  const seq = Seq.safeParse(params.seq);
  const item = seq.success ? await packageItem(params.id, seq.data) : null;
  if (!item) error(404, 'There is no such item.');
  return json({ item, changed: await changedParts(params.id, item.id) } satisfies WholeItem);
};
