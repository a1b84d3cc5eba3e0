import { listSystems } from '$lib/server/store/systems';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({ systems: await listSystems() });
