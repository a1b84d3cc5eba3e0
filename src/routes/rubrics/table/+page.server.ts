import { error } from '@sveltejs/kit';
import { tableOfPackage } from '$lib/server/services/rubricTables';
import type { PageServerLoad } from './$types';

/** The table of a file that was brought in, where one is named. */
export const load: PageServerLoad = async ({ url }) => {
  const id = url.searchParams.get('package');
  const table = id === null ? null : await tableOfPackage(id);
  if (id !== null && !table) error(404, 'That file holds no table of rubrics.');
  return { packageId: id, table };
};
