import { listRubrics } from '$lib/server/library/heldRubrics';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({ rubrics: await listRubrics() });
