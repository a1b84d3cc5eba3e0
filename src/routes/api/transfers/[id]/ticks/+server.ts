import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { NODE_KINDS } from '@alforja/core';
import { transferById } from '$lib/server/store/transfers';
import { chooseTicks } from '$lib/server/transfer/plan';
import { contentsFor, sourceOf } from '$lib/server/transfer/source';
import type { RequestHandler } from './$types';

const Body = z.object({
  ticks: z.array(z.object({ kind: z.enum(NODE_KINDS), nodeId: z.string().max(1000) })).max(200_000),
});

/** Keeps the ticks and answers with what they bring along and leave behind. */
export const PUT: RequestHandler = async ({ params, request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'The selection is not in the form expected.');
  const transfer = await transferById(params.id);
  const source = transfer && (await sourceOf(transfer));
  if (!source) error(404, 'There is no such transfer.');
  const { ticks } = body.data;
  // A thread works out what they come to while they are written.
  const [contents] = await Promise.all([contentsFor(source, ticks), chooseTicks(params.id, ticks)]);
  return json(contents);
};
