import { error } from '@sveltejs/kit';
import { packageSeen } from '$lib/server/library/room';
import { packageListing } from '$lib/server/store/packages';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const held = await packageListing(params.id);
  const seen = await packageSeen(params.id);
  if (!held || !seen?.room) error(404, 'There is no such package, or it has not been read yet.');
  const { quizzes, banks, layer, items } = seen.room;
  return {
    id: held.id,
    name: held.name,
    reading: seen.reading,
    layer,
    items,
    quizzes: quizzes.map(({ id, title, items: runs }) => ({ id, title, runs })),
    banks: banks.map(({ id, title, items: runs }) => ({ id, title, runs })),
  };
};
