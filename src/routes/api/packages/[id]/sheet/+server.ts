import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { COLUMN_NAMES, MAX_TEXT } from '@alforja/core';
import { NotTaken } from '$lib/server/library/putRight';
import { sheetOf, typeInto } from '$lib/server/library/sheet';
import { MOST_CELLS } from '$lib/shared/sheet';
import type { RequestHandler } from './$types';

const Body = z.object({
  way: z.enum(['sheet', 'workbook']).default('sheet'),
  cells: z
    .array(
      z.object({
        node: z.string().max(2000),
        column: z.enum(COLUMN_NAMES as [string, ...string[]]),
        text: z.string().max(MAX_TEXT, `A cell takes at most ${MAX_TEXT} characters. Nothing was changed.`),
      }),
    )
    .min(1)
    .max(MOST_CELLS),
});

/** Every row of the sheet. */
export const GET: RequestHandler = async ({ params }) => {
  const rows = await sheetOf(params.id).catch((problem: unknown) => {
    if (problem instanceof NotTaken) error(404, problem.message);
    throw problem;
  });
  return new Response(rows, { headers: { 'Content-Type': 'application/json' } });
};

/** Types texts into cells. */
export const POST: RequestHandler = async ({ params, request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, body.error.issues[0]!.message);
  try {
    return json(await typeInto(params.id, body.data.cells as Parameters<typeof typeInto>[1], body.data.way));
  } catch (problem) {
    if (problem instanceof NotTaken) error(409, problem.message);
    throw problem;
  }
};
