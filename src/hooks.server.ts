import { json, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { guarded, refusalOf } from '$lib/server/front';
import { openHouse } from '$lib/server/jobs';

export const init: ServerInit = openHouse;

export const handle: Handle = async ({ event, resolve }) => {
  const refused = refusalOf(event.request);
  if (refused) return guarded(json({ message: refused.message }, { status: refused.status }));
  return guarded(await resolve(event));
};

export const handleError: HandleServerError = ({ error, status, message }) => {
  if (status !== 404) console.error(error);
  return { message: status === 404 ? 'There is nothing at this address.' : message };
};
