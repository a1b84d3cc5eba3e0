import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { NotTaken, repairFindings } from '$lib/server/library/putRight';
import type { RequestHandler } from './$types';

const Body = z.object({ reading: z.uuid(), at: z.array(z.number().int().nonnegative()).min(1).max(200_000) });

/** Makes the repairs of findings, by their places in the reading that was shown. */
export const POST: RequestHandler = async ({ params, request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'Name the findings to repair, and the reading they belong to.');
  try {
    return json(await repairFindings(params.id, body.data.reading, body.data.at));
  } catch (problem) {
    if (problem instanceof NotTaken) error(409, problem.message);
    throw problem;
  }
};
