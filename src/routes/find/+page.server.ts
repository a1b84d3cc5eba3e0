import { findEverything } from '$lib/server/library/finding';
import type { PageServerLoad } from './$types';

const MANY = 50;

export const load: PageServerLoad = async ({ url }) => {
  const query = (url.searchParams.get('q') ?? '').slice(0, 200);
  return { query, groups: await findEverything(query, MANY) };
};
