import { json, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { guarded, refusalOf } from '$lib/server/front';
import { endWith, openHouse } from '$lib/server/jobs';
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
};

export const handle: Handle = async ({ event, resolve }) => {
  const refused = refusalOf(event.request);
  if (refused) return guarded(json({ message: refused.message }, { status: refused.status }));
  return guarded(await resolve(event));
};

export const handleError: HandleServerError = ({ error, status, message }) => {
  if (status === 404) return { message: 'There is nothing at this address.' };
  console.error(error);
  const trouble = troubleOf(error);
  return trouble instanceof StoreTrouble ? { message: trouble.message, foreseen: true } : { message };
};
