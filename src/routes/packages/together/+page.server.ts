import { error } from '@sveltejs/kit';
import { z } from 'zod';
import { filesNamed } from '$lib/server/library/together';
import type { PageServerLoad } from './$types';

const Ids = z.array(z.uuid()).min(1).max(200);

/** Files that came in together, each told for what it is. */
export const load: PageServerLoad = async ({ url }) => {
  const ids = Ids.safeParse((url.searchParams.get('ids') ?? '').split(','));
  if (!ids.success) error(400, 'Name the files that belong together.');
  return { files: await filesNamed(ids.data) };
};
