import { latestNews } from '$lib/server/jobs/events';
import type { LayoutServerLoad } from './$types';

/** The number of the latest job news when this page was loaded, so that none falls between it and the stream. */
export const load: LayoutServerLoad = async () => ({ news: latestNews() });
