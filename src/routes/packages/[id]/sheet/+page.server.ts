import { error } from '@sveltejs/kit';
import { roomView } from '$lib/server/library/room';
import { packageById } from '$lib/server/store/packages';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params }) => {
  const held = await packageById(params.id);
  if (!held?.tree || held.readingId === null)
    error(404, 'There is no such package, or it has not been read yet.');
  const room = (await roomView(held))!;
  const { quizzes, banks, layer, items } = room;
  return {
    id: held.id,
    name: held.name,
    reading: held.readingId,
    layer,
    items,
    quizzes: quizzes.map(({ id, title, items: runs }) => ({ id, title, runs })),
    banks: banks.map(({ id, title, items: runs }) => ({ id, title, runs })),
  };
};
