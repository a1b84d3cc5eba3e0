import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';
import { openHouse } from '$lib/server/jobs';

export const init: ServerInit = openHouse;

const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

/** SvelteKit checks the origin of forms only; raw uploads and JSON are checked here. */
export const handle: Handle = async ({ event, resolve }) => {
  const origin = event.request.headers.get('origin');
  if (
    CHANGES.has(event.request.method) &&
    origin !== null &&
    new URL(origin).host !== event.request.headers.get('host')
  ) {
    return new Response('Cross-site request refused.', { status: 403 });
  }
  const response = await resolve(event);
  response.headers.set('X-Content-Type-Options', 'nosniff');
  response.headers.set('Referrer-Policy', 'same-origin');
  return response;
};

export const handleError: HandleServerError = ({ error, status, message }) => {
  if (status !== 404) console.error(error);
  return { message: status === 404 ? 'There is nothing at this address.' : message };
};
