import { listBanks } from '$lib/server/library/banks';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({ banks: await listBanks(false) });
