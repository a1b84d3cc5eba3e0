import { error } from '@sveltejs/kit';
import { requestSnapshot } from '$lib/server/library/courses';
import { courseById } from '$lib/server/store/courses';
import { packageListing } from '$lib/server/store/packages';
import { latestSnapshot, looksInto } from '$lib/server/store/snapshots';
import type { PageServerLoad } from './$types';

const STALE_MS = 5 * 60_000;

export const load: PageServerLoad = async ({ params }) => {
  const course = await courseById(params.id);
  if (!course) error(404, 'Course not found. Refresh its system.');
  const snapshot = await latestSnapshot(course.id);
  if (!snapshot || Date.now() - snapshot.takenAt > STALE_MS) await requestSnapshot(course.id);
  const held = snapshot ? await packageListing(snapshot.packageId) : null;
  return { course, snapshot, held, looks: (await looksInto(course.id)).slice(0, 10) };
};
