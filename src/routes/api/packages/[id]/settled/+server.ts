import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { settle } from '$lib/server/library/packages';
import type { RequestHandler } from './$types';

const Body = z.object({ settled: z.boolean() });

/** Says that what was found in a package is dealt with, or takes that back. */
export const PUT: RequestHandler = async ({ params, request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'Say whether the findings are dealt with.');
  await settle(params.id, body.data.settled);
  return json({});
};
