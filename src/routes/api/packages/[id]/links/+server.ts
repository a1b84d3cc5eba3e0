import { error, json } from '@sveltejs/kit';
import { linksOfPackage, testLinks } from '$lib/server/library/links';
import type { RequestHandler } from './$types';

/** Tests every link of a package. */
export const POST: RequestHandler = async ({ params }) => {
  const links = await linksOfPackage(params.id);
  if (!links) error(404, 'There is no such package, or it has not been read yet.');
  return json(await testLinks(links));
};
