import { error } from '@sveltejs/kit';
import { documentsView, DocumentTrouble } from '$lib/server/library/documents';
import { layerView } from '$lib/server/library/putRight';
import { packageListing } from '$lib/server/store/packages';
import type { PageServerLoad } from './$types';

/** The documents of a package beside the questions read from them; `path` names the one to show. */
export const load: PageServerLoad = async ({ params, url }) => {
  const held = await packageListing(params.id);
  if (!held) error(404, 'There is no such package.');
  const view = await documentsView(params.id, url.searchParams.get('path')).catch((problem: unknown) => {
    if (problem instanceof DocumentTrouble) error(400, problem.message);
    throw problem;
  });
  if (!view) error(404, 'This file holds no document or table of questions.');
  return { held, view, layer: await layerView(params.id) };
};
