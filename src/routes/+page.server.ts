import { broughtPackages } from '$lib/server/library/packages';
import { listTransfers } from '$lib/server/store/transfers';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({
  packages: await broughtPackages(8),
  transfers: await listTransfers(5),
});
