import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { SHEET_WAYS } from '@alforja/core';
import { BothTrouble, tryBoth } from '$lib/server/transfer/bothSides';
import type { RequestHandler } from './$types';

const Body = z.object({
  quiz: z.string().min(1).max(2000),
  seed: z.string().max(200),
  way: z.enum(SHEET_WAYS),
});

/** A quiz sat on both sides with the same answers. */
export const POST: RequestHandler = async ({ params, request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'That is not in the form expected.');
  const { quiz, seed, way } = body.data;
  try {
    return json(await tryBoth(params.id, quiz, { seed, way }));
  } catch (problem) {
    if (problem instanceof BothTrouble) error(409, problem.message);
    throw problem;
  }
};
