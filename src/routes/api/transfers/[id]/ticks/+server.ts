import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { contentsOf, sourceTree } from '$lib/server/services/contents';
import { setTicks, transferById } from '$lib/server/services/transfers';
import { NODE_KINDS } from '$lib/shared/types';
import type { RequestHandler } from './$types';

const Body = z.object({
  ticks: z.array(z.object({ kind: z.enum(NODE_KINDS), nodeId: z.string().max(1000) })).max(200_000),
});

/** Keeps the ticks and answers with what they bring along and leave behind. */
export const PUT: RequestHandler = async ({ params, request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'The selection is not in the form expected.');
  const transfer = await transferById(params.id);
  const tree = transfer && (await sourceTree(transfer));
  if (!tree) error(404, 'There is no such transfer.');
  await setTicks(params.id, body.data.ticks);
  return json(await contentsOf(transfer.packageId, tree, body.data.ticks));
};
