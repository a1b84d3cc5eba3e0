import { MAX_UPLOAD } from '$lib/server/config';
import { latestNews } from '$lib/server/store/news';
import { listNotices, unreadNotices } from '$lib/server/store/notices';
import type { LayoutServerLoad } from './$types';

/**
 * The number of the latest job news when this page was loaded, so that none falls between it and the stream;
 * the tray.
 */
export const load: LayoutServerLoad = async () => ({
  news: String(await latestNews()),
  notices: await listNotices(20),
  unread: await unreadNotices(),
  limit: MAX_UPLOAD,
});
