import { findCourses } from '$lib/server/library/courses';
import { refreshSystems } from '$lib/server/library/systems';
import { courseById } from '$lib/server/store/courses';
import { packageListing } from '$lib/server/store/packages';
import type { PageServerLoad } from './$types';

/** What stands in the address where the destination is a file. */
const TO_FILE = 'file';

/** Destination first, then the source: a course of any system, or a package in hand. */
export const load: PageServerLoad = async ({ url }) => {
  await refreshSystems();
  const given = (name: string): string | null => url.searchParams.get(name);
  const [to, from, packageId] = [given('to'), given('from'), given('package')];
  const held = packageId ? await packageListing(packageId) : null;
  return {
    /** Into a file to keep or to mail, and not into a course. */
    toFile: to === TO_FILE,
    to: to && to !== TO_FILE ? await courseById(to) : null,
    from: from ? await courseById(from) : null,
    held: held
      ? {
          id: held.id,
          name: held.name,
          reading: held.state === 'reading',
          made: held.cameBy === 'made',
          items: held.summary?.items ?? 0,
          rubrics: held.summary?.rubrics ?? 0,
        }
      : null,
    repeat: given('repeat'),
    query: given('q') ?? '',
    found: await findCourses(given('q') ?? ''),
  };
};
