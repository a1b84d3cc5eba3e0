import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { ConnectorError } from '$lib/server/connectors/types';

const Connection = z.object({
  address: z.url({ protocol: /^https?$/u, error: 'The address has to begin with http:// or https://.' }),
  token: z.string().trim().min(1, 'The token is missing.').max(4000),
});

/** Connects something by the address and the token a request brings; what it says where that fails is passed on. */
export async function connecting(
  request: Request,
  connect: (address: string, token: string) => Promise<string>,
): Promise<Response> {
  const body = Connection.safeParse(await request.json().catch(() => null));
  if (!body.success) error(400, body.error.issues[0]!.message);
  try {
    return json({ id: await connect(body.data.address, body.data.token) });
  } catch (failure) {
    if (failure instanceof ConnectorError) error(502, failure.message);
    throw failure;
  }
}
