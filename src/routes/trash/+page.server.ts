import { listThrown } from '$lib/server/store/trash';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({ thrown: await listThrown() });
