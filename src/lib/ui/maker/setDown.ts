import type { PackageListing } from '$lib/shared/types';
import { ask } from '../ask';

/** Time between two looks whether it has been read, in ms, and looks until it is given up. */
const EVERY = 150;
const MOST = 400;

/**
 * Has what is made written as a package, and waits until that has been read.
 * @returns the package's id
 * @throws Error with words where it cannot be
 */
export async function setDown(madeId: string): Promise<string> {
  for (let n = 0; n < MOST; n++) {
    const { package: id, state } = await ask<{ package: string; state: PackageListing['state'] }>(
      `/api/made/${madeId}`,
      { do: 'set-down' },
    );
    if (state === 'ready') return id;
    if (state === 'failed') throw new Error('It was written and could not be read back. Nothing was lost.');
    await new Promise((resolve) => setTimeout(resolve, EVERY));
  }
  throw new Error('It is still being read. Try again in a while.');
}
