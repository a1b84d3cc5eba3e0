import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { setTakenBack } from '$lib/server/library/putRight';
import type { RequestHandler } from './$types';

const Body = z.object({ takenBack: z.boolean() });

/** Takes one step of the history back, or brings it back. */
export const PUT: RequestHandler = async ({ params, request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'Say whether the step is taken back.');
  if (!(await setTakenBack(params.id, params.step, body.data.takenBack)))
    error(404, 'There is no such step.');
  return json({});
};
