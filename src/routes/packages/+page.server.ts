import { z } from 'zod';
import { broughtPackages } from '$lib/server/library/packages';
import type { PageServerLoad } from './$types';

const Show = z.enum(['all', 'findings', 'unreadable']).catch('all');

export const load: PageServerLoad = async ({ url }) => ({
  show: Show.parse(url.searchParams.get('show')),
  packages: await broughtPackages(),
});
