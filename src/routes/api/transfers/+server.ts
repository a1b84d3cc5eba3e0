import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { startCourseTransfer } from '$lib/server/services/courseTransfers';
import { NODE_KINDS } from '$lib/shared/types';
import type { RequestHandler } from './$types';

const Ticks = z.array(z.object({ kind: z.enum(NODE_KINDS), nodeId: z.string().max(1000) })).max(200_000);
const Body = z.object({
  from: z.union([z.object({ courseId: z.string() }), z.object({ packageId: z.string() })]),
  to: z.string(),
  ticks: Ticks.default([]),
});

/** Starts a transfer into a course; the source has been looked into before. */
export const POST: RequestHandler = async ({ request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, z.prettifyError(body.error));
  const { from, to, ticks } = body.data;
  if ('courseId' in from && from.courseId === to) error(400, 'Source and destination are the same course.');
  const id = await startCourseTransfer(from, to, { ticks });
  if (id === null) error(409, 'The source has not been read yet, or the destination is no longer in sight.');
  return json({ id });
};
