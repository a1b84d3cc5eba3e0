import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { evaluate, plainNumber } from '@alforja/core';
import { packageItem } from '$lib/server/library/packages';
import type { RequestHandler } from './$types';

const Body = z.object({
  answers: z.record(z.string(), z.array(z.union([z.string().max(10_000), z.number(), z.boolean()])).max(200)),
});

/** Scores one set of answers, and says which feedback it brings up. */
export const POST: RequestHandler = async ({ params, request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'The answers are not in the form expected.');
  const item = await packageItem(params.id, z.coerce.number().int().min(0).catch(-1).parse(params.seq));
  if (!item) error(404, 'There is no such item.');
  const result = evaluate(item, body.data.answers);
  const shown = item.feedback.filter(
    (f) => (result.outcomes[f.outcome]?.values.includes(f.id) ?? false) === f.show,
  );
  return json({ score: plainNumber(result.score), maximum: plainNumber(item.points), feedback: shown });
};
