import { listPackages } from '$lib/server/services/packages';
import { listTransfers } from '$lib/server/services/transfers';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({
  packages: await listPackages(8),
  transfers: await listTransfers(5),
});
