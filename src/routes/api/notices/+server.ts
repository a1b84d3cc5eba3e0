import { json } from '@sveltejs/kit';
import { listNotices, readNotices } from '$lib/server/services/notices';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async () => json(await listNotices());

/** Marks all as read. */
export const POST: RequestHandler = async () => {
  await readNotices();
  return json({});
};
