import { error } from '@sveltejs/kit';
import { listBanks } from '$lib/server/library/banks';
import { quizMade, weighed } from '$lib/server/library/making';
import type { PageServerLoad } from './$types';

/** A quiz that is being made, and the banks it is made out of. */
export const load: PageServerLoad = async ({ params }) => {
  const made = await quizMade(params.id);
  if (!made) error(404, 'There is no such quiz. It may have been thrown away.');
  const [banks, view] = await Promise.all([listBanks(true), weighed(made.id, made.draft)]);
  return { id: made.id, draft: made.draft, version: made.version, view, banks };
};
