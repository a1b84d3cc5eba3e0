import { broughtPackages } from '$lib/server/library/packages';
import { listNotices } from '$lib/server/store/notices';
import { listSystems } from '$lib/server/store/systems';
import { whatWaits } from '$lib/server/transfer/desk';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({
  waiting: await whatWaits(),
  packages: await broughtPackages(6),
  done: await listNotices(8),
  systems: (await listSystems()).length,
});
