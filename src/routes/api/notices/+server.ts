import { json } from '@sveltejs/kit';
import { readNotices } from '$lib/server/library/notices';
import { listNotices } from '$lib/server/store/notices';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async () => json(await listNotices());

/** Marks all as read. */
export const POST: RequestHandler = async () => {
  await readNotices();
  return json({});
};
