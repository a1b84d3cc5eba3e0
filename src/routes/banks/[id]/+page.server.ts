import { error } from '@sveltejs/kit';
import { listBanks } from '$lib/server/library/banks';
import { bankLook, bankMade } from '$lib/server/library/making';
import type { PageServerLoad } from './$types';

/** A bank of one's own, and the banks that items are taken from. */
export const load: PageServerLoad = async ({ params }) => {
  const made = await bankMade(params.id);
  if (!made) error(404, 'There is no such bank of your own. It may have been thrown away.');
  const [view, banks] = await Promise.all([bankLook(made.id, made.draft), listBanks(true)]);
  return {
    id: made.id,
    title: made.title,
    version: made.version,
    packageId: made.packageId,
    view,
    banks: banks.filter((b) => b.own !== made.id),
  };
};
