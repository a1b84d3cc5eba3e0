import { broughtPackages } from '$lib/server/library/packages';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({ packages: await broughtPackages() });
