import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { itemScore } from '$lib/server/library/packages';
import type { RequestHandler } from './$types';

const Body = z.object({
  answers: z.record(z.string(), z.array(z.union([z.string().max(10_000), z.number(), z.boolean()])).max(200)),
});

/** Scores one set of answers, and says which feedback it brings up. */
export const POST: RequestHandler = async ({ params, request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'The answers are not in the form expected.');
  const seq = z.coerce.number().int().min(0).catch(-1).parse(params.seq);
  const score = await itemScore(params.id, seq, body.data.answers);
  if (!score) error(404, 'There is no such item.');
  return json(score);
};
