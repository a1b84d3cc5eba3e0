import { listRubrics } from '$lib/server/services/rubrics';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({ rubrics: await listRubrics() });
