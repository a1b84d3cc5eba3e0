import { error } from '@sveltejs/kit';
import { roomText } from '$lib/server/library/room';
import type { RequestHandler } from './$types';

/** All that the reading room shows of a package, where its page brought only the first of long lists. */
export const GET: RequestHandler = async ({ params }) => {
  const view = await roomText(params.id);
  if (view === null) error(404, 'There is no such package, or it has not been read yet.');
  return new Response(view, { headers: { 'Content-Type': 'application/json' } });
};
