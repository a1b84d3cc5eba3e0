import { error, json } from '@sveltejs/kit';
import { readAgain } from '$lib/server/library/reading';
import { packageFile } from '$lib/server/store/packages';
import type { RequestHandler } from './$types';

/** Has a package read once more, also one that could not be read or whose reading was stopped. */
export const POST: RequestHandler = async ({ params }) => {
  if (!(await packageFile(params.id))) error(404, 'There is no such package.');
  await readAgain(params.id);
  return json({});
};
