import { error, json } from '@sveltejs/kit';
import { requestSnapshot } from '$lib/server/library/courses';
import { courseById } from '$lib/server/store/courses';
import { packageListing } from '$lib/server/store/packages';
import { latestSnapshot } from '$lib/server/store/snapshots';
import type { RequestHandler } from './$types';

/** The latest snapshot of a course, and whether it has been read. */
export const GET: RequestHandler = async ({ params }) => {
  const snapshot = await latestSnapshot(params.id);
  const held = snapshot ? await packageListing(snapshot.packageId) : null;
  return json({ snapshot, state: held?.state ?? null });
};

/** Has a snapshot taken. */
export const POST: RequestHandler = async ({ params }) => {
  if (!(await courseById(params.id))) error(404, 'Course not found. Refresh its system.');
  await requestSnapshot(params.id);
  return json({});
};
