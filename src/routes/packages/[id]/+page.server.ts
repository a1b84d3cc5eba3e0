import { error } from '@sveltejs/kit';
import { nobodyReads } from '$lib/server/library/reading';
import { packageSeen } from '$lib/server/library/room';
import { packageListing } from '$lib/server/store/packages';
import { firstRead } from '$lib/server/store/readings';
import { transfersOf } from '$lib/server/store/transfers';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const held = await packageListing(params.id);
  if (!held) error(404, 'There is no such package.');
  const seen = held.state === 'ready' ? await packageSeen(params.id) : null;
  return {
    held,
    /** Nothing reads it that would have it read: that was broken off. */
    idle: held.state === 'reading' && (await nobodyReads()),
    /** What it begins with, while it is being read. */
    first: held.state === 'reading' ? await firstRead(params.id) : [],
    reading: seen?.reading ?? null,
    room: seen?.room ?? null,
    rubrics: seen?.rubrics ?? null,
    transfers: await transfersOf(params.id),
  };
};
