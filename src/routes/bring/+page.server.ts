import { courseById, findCourses } from '$lib/server/services/courses';
import { packageById } from '$lib/server/services/packages';
import { lookAgain } from '$lib/server/services/systems';
import type { PageServerLoad } from './$types';

/** Destination first, then the source: a course of any system, or a package in hand. */
export const load: PageServerLoad = async ({ url }) => {
  await lookAgain();
  const given = (name: string): string | null => url.searchParams.get(name);
  const [to, from, packageId] = [given('to'), given('from'), given('package')];
  const held = packageId ? await packageById(packageId) : null;
  return {
    to: to ? await courseById(to) : null,
    from: from ? await courseById(from) : null,
    held: held ? { id: held.id, name: held.name, items: held.summary?.items ?? 0 } : null,
    repeat: given('repeat'),
    query: given('q') ?? '',
    found: await findCourses(given('q') ?? ''),
  };
};
