import { listSystems } from '$lib/server/services/systems';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({ systems: await listSystems() });
