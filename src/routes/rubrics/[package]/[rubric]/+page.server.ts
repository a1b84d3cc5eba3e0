import { error } from '@sveltejs/kit';
import { rubricPoints, rubricSides, speak } from '@alforja/core';
import { listRubrics, rubricAt } from '$lib/server/services/rubrics';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ params, url }) => {
  const held = await rubricAt(params.package, params.rubric);
  if (!held) error(404, 'There is no such rubric.');
  const [otherPackage = '', ...rest] = (url.searchParams.get('with') ?? '').split('/');
  const other = otherPackage ? await rubricAt(otherPackage, rest.join('/')) : null;
  const others = (await listRubrics()).filter((r) => r.packageId !== params.package || r.id !== params.rubric); // prettier-ignore
  return {
    address: `${params.package}/${encodeURIComponent(params.rubric)}`,
    rubric: held.rubric,
    name: held.name,
    points: rubricPoints(held.rubric),
    findings: held.findings.map(speak),
    others,
    comparison: other ? { ...rubricSides(held.rubric, other.rubric), name: other.name, rubric: other.rubric, points: rubricPoints(other.rubric) } : null,
  };
}; // prettier-ignore
