import { error, json } from '@sveltejs/kit';
import { peepAt } from '$lib/server/library/dataFiles';
import type { RequestHandler } from './$types';

/** The first rows of a file of data. */
export const GET: RequestHandler = async ({ params, url }) => {
  const peep = await peepAt(params.id, url.searchParams.get('path') ?? '');
  if (!peep) error(404, 'The package has no such file.');
  return json(peep);
};
