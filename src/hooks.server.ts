import { json, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { guarded, isChange, packed, refusalOf } from '$lib/server/front';
import { endWith, openHouse, warmThreads } from '$lib/server/jobs';
import { WorkTrouble } from '$lib/server/library/worked';
import { KEY_HEADER, MadeBefore, once } from '$lib/server/once';
import { StoreTrouble, troubleOf } from '$lib/server/store/open';

export const init: ServerInit = async () => {
  try {
    await openHouse();
  } catch (error) {
    if (!(error instanceof StoreTrouble)) throw error;
    // Whoever starts it reads this, and needs no stack for it.
    console.error(error.message);
    process.exit(1);
  }
  endWith(process);
  warmThreads();
};

export const handle: Handle = async ({ event, resolve }) => {
  const refused = refusalOf(event.request);
  if (refused) return guarded(json({ message: refused.message }, { status: refused.status }));
  const key = isChange(event.request) ? event.request.headers.get(KEY_HEADER) : null;
  if (key === null) return packed(event.request, guarded(await resolve(event)));
  const { pathname, search } = event.url;
  return guarded(await once(key, `${event.request.method} ${pathname}${search}`, () => resolve(event)));
};

export const handleError: HandleServerError = ({ error, status, message }) => {
  if (status === 404) return { message: 'There is nothing at this address.' };
  if (error instanceof WorkTrouble) return { message: error.message, foreseen: true };
  // Whoever asked twice is answered as the first time, and does not see this.
  if (error instanceof MadeBefore) return { message };
  console.error(error);
  const trouble = troubleOf(error);
  return trouble instanceof StoreTrouble ? { message: trouble.message, foreseen: true } : { message };
};
