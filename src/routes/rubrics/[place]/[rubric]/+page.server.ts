import { error } from '@sveltejs/kit';
import { rubricSides, speak } from '@alforja/core';
import { findCourses } from '$lib/server/library/courses';
import { listRubrics, originalOf, OWN, rubricAt } from '$lib/server/library/heldRubrics';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, url }) => {
  const held = await rubricAt(params.place, params.rubric);
  if (!held) error(404, 'There is no such rubric.');
  const [otherPlace = '', ...rest] = (url.searchParams.get('with') ?? '').split('/');
  const other = otherPlace ? await rubricAt(otherPlace, rest.join('/')) : null;
  const others = (await listRubrics()).filter((r) => r.place !== params.place || r.id !== params.rubric);
  const original = params.place === OWN ? await originalOf(params.rubric) : null;
  return {
    address: `${encodeURIComponent(params.place)}/${encodeURIComponent(params.rubric)}`,
    place: params.place,
    kind: held.kind,
    rubric: held.rubric,
    name: held.placeName,
    locked: held.locked,
    grades: held.grades,
    points: held.points,
    /** More than are shown, where it is very long. */
    criteria: held.criteria,
    findings: held.findings.map(speak),
    others,
    courses: (await findCourses('')).filter((c) => c.mayChange),
    original: original && {
      place: original.place,
      id: original.id,
      gone: original.now === null,
      name: original.now?.placeName ?? '',
      title: original.now?.rubric.title ?? '',
      points: original.now?.points ?? null,
      changed: original.changed,
      // What has changed in it since it was taken over: the follower at the left, the original as it is now
      // at the right.
      sides:
        original.follows && original.changed && original.now && original.basis
          ? rubricSides(original.basis, original.now.rubric)
          : null,
    },
    comparison: other
      ? {
          ...rubricSides(held.rubric, other.rubric),
          name: other.placeName,
          rubric: other.rubric,
          points: other.points,
        }
      : null,
  };
};
