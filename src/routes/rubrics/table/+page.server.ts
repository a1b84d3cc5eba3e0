import { error } from '@sveltejs/kit';
import { tablesOfPackage } from '$lib/server/library/rubricTables';
import type { PageServerLoad } from './$types';

/** The tables of a file that was brought in, where one is named. */
export const load: PageServerLoad = async ({ url }) => {
  const id = url.searchParams.get('package');
  const tables = id === null ? [] : await tablesOfPackage(id);
  if (id !== null && tables.length === 0) error(404, 'That file holds no table of rubrics.');
  return { packageId: id, tables };
};
