import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { NotTaken } from '$lib/server/library/putRight';
import { differingIn } from '$lib/server/library/sheet';
import { TooLarge } from '$lib/server/store/files';
import type { RequestHandler } from './$types';

const Query = z.object({ name: z.string().trim().min(1).max(255) });

/** Takes a workbook or CSV as the raw body, and says what in it is otherwise; nothing is changed by that. */
export const POST: RequestHandler = async ({ params, request, url }) => {
  const query = Query.safeParse(Object.fromEntries(url.searchParams));
  if (!query.success || !request.body) error(400, 'Send the file, and its name as ?name=');
  try {
    const body = request.body as unknown as AsyncIterable<Uint8Array>;
    return json(await differingIn(params.id, query.data.name, body));
  } catch (problem) {
    if (problem instanceof NotTaken) error(400, problem.message);
    if (problem instanceof TooLarge)
      error(413, 'The file is larger than a workbook of items can be (20 MB).');
    throw problem;
  }
};
