import { librariesConnected } from '$lib/server/library/libraries';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({ libraries: await librariesConnected() });
