import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';
import { openDatabase } from '$lib/server/db/client';
import { cleanTemporary } from '$lib/server/files';
import { resumeJobs } from '$lib/server/jobs/runner';

export const init: ServerInit = async () => {
  await openDatabase();
  await cleanTemporary();
  await resumeJobs();
};

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
