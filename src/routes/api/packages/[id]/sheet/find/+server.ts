import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { MAX_TEXT } from '@alforja/core';
import { NotTaken } from '$lib/server/library/putRight';
import { findIn, replaceIn } from '$lib/server/library/sheet';
import type { RequestHandler } from './$types';

const Body = z.object({
  search: z.object({
    find: z.string().max(1000),
    replace: z.string().max(MAX_TEXT),
    matchCase: z.boolean(),
    wholeWords: z.boolean(),
  }),
  nodes: z.array(z.string().max(2000)).max(200_000).nullable(),
  /** Absent where one only looks; else places that stay as they are. */
  without: z.array(z.number().int().nonnegative()).max(200_000).optional(),
});

/** Looks for a text in all texts of items, or replaces it there. */
export const POST: RequestHandler = async ({ params, request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'Look for at most 1,000 characters.');
  const { search, nodes, without } = body.data;
  try {
    return json(
      without === undefined
        ? await findIn(params.id, search, nodes)
        : await replaceIn(params.id, search, { nodes, without }),
    );
  } catch (problem) {
    if (problem instanceof NotTaken) error(409, problem.message);
    throw problem;
  }
};
