import { json } from '@sveltejs/kit';
import { connect, refreshSystems } from '$lib/server/library/systems';
import { listSystems } from '$lib/server/store/systems';
import { connecting } from '../connecting';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async () => json(await listSystems());

/** Connects a system by address and token. */
export const POST: RequestHandler = ({ request }) => connecting(request, connect);

/** Asks all systems for their courses again. */
export const PUT: RequestHandler = async () => {
  await refreshSystems(true);
  return json({});
};
