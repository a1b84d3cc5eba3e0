import { listPackages } from '$lib/server/services/packages';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({ packages: await listPackages() });
