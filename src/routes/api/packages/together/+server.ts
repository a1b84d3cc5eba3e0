import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { BindingTrouble, bindTogether } from '$lib/server/library/together';
import type { RequestHandler } from './$types';

const Bound = z.object({
  ids: z.array(z.uuid()).min(2, 'Choose two files or more.').max(200),
  name: z.string().trim().min(1, 'Give the files a name.').max(200),
});

/** Makes one source of several files that are here. */
export const POST: RequestHandler = async ({ request }) => {
  const body = Bound.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, body.error.issues[0]!.message);
  try {
    const id = await bindTogether([...new Set(body.data.ids)], body.data.name);
    if (id === null) error(404, 'One of these files is no longer there.');
    return json({ id }, { status: 201 });
  } catch (problem) {
    if (problem instanceof BindingTrouble) error(413, problem.message);
    throw problem;
  }
};
