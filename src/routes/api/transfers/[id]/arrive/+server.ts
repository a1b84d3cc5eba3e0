import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { arrive, transferById } from '$lib/server/services/transfers';
import { packageById } from '$lib/server/services/packages';
import type { RequestHandler } from './$types';

const Body = z.object({ packageId: z.uuid() });

/** Takes a package as what arrived. */
export const POST: RequestHandler = async ({ params, request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, 'Name the package that arrived.');
  if (!(await transferById(params.id)) || !(await packageById(body.data.packageId)))
    error(404, 'There is no such transfer or package.');
  await arrive(params.id, body.data.packageId);
  return json({ ok: true }, { status: 202 });
};
