import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { bringBack, throwAway } from '$lib/server/library/trash';
import { THROWABLE } from '$lib/shared/trash';
import type { RequestHandler } from './$types';

const Body = z.object({ kind: z.enum(THROWABLE), id: z.string().min(1).max(200), back: z.boolean() });

/** Throws one thing away, or brings it back. */
export const POST: RequestHandler = async ({ request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'Say what is to be thrown away or brought back.');
  const { kind, id, back } = body.data;
  const outcome = await (back ? bringBack : throwAway)(kind, id);
  if (outcome === 'busy') error(409, 'It is being worked on. Stop the work first, or wait for its end.');
  if (outcome === 'unknown') error(404, 'It is not there any more.');
  return json({});
};
