import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { NODE_KINDS } from '@alforja/core';
import { startTransfer } from '$lib/server/transfer/start';
import type { RequestHandler } from './$types';

const Ticks = z.array(z.object({ kind: z.enum(NODE_KINDS), nodeId: z.string().max(1000) })).max(200_000);
const Body = z.object({
  from: z.union([z.object({ courseId: z.string() }), z.object({ packageId: z.string() })]),
  /** A course, or null for a file. */
  to: z.string().nullable(),
  ticks: Ticks.optional(),
  /** Everything in it was chosen already. */
  all: z.boolean().optional(),
  /** What the rubrics that go are attached to in the destination. */
  attach: z.array(z.string().max(1000)).max(1000).optional(),
});

/** Starts a transfer into a course or a file; of a source course there is a snapshot by now. */
export const POST: RequestHandler = async ({ request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, z.prettifyError(body.error));
  const { from, to, ticks, all, attach } = body.data;
  if ('courseId' in from && from.courseId === to) error(400, 'Source and destination are the same course.');
  const id = await startTransfer(from, to, {
    ...(ticks ? { ticks } : {}),
    ...(all ? { all } : {}),
    ...(attach ? { attach } : {}),
  });
  if (id === null) error(409, 'The source has not been read yet, or the destination is no longer listed.');
  return json({ id });
};
