import { json } from '@sveltejs/kit';
import { connectLibrary, librariesConnected } from '$lib/server/library/libraries';
import { connecting } from '../connecting';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async () => json(await librariesConnected());

/** Connects a library by address and token. */
export const POST: RequestHandler = ({ request }) => connecting(request, connectLibrary);
