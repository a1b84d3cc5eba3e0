import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { connectLibrary, librariesConnected } from '$lib/server/library/libraries';
import { ConnectorError } from '$lib/server/connectors/types';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async () => json(await librariesConnected());

const Body = z.object({
  address: z.url({ protocol: /^https?$/u, error: 'The address has to begin with http:// or https://.' }),
  token: z.string().trim().min(1, 'The token is missing.').max(4000),
});

/** Connects a library by address and token. */
export const POST: RequestHandler = async ({ request }) => {
  const body = Body.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, body.error.issues[0]!.message);
  try {
    return json({ id: await connectLibrary(body.data.address, body.data.token) });
  } catch (failure) {
    if (failure instanceof ConnectorError) error(502, failure.message);
    throw failure;
  }
};
