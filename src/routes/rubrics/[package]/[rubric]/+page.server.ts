import { error } from '@sveltejs/kit';
import { compareRubrics, gradeEffect, pairCriteria, pairLevels, rubricPoints, speak, type Criterion, type Rubric } from '@alforja/core'; // prettier-ignore
import { listRubrics, rubricAt } from '$lib/server/services/rubrics';
import type { CriterionPair } from '$lib/ui/rubrics/types';
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
    comparison: other ? { ...compared(held.rubric, other.rubric), name: other.name, rubric: other.rubric, points: rubricPoints(other.rubric) } : null,
  };
}; // prettier-ignore

/** Criteria side by side, in the order of the left; what only the right has follows. */
function compared(a: Rubric, b: Rubric) {
  const pairs = pairCriteria(a, b);
  const taken = new Set(pairs.values());
  const same = (c: Criterion, d: Criterion): boolean =>
    compareRubrics([{ ...a, title: '', criteria: [c] }], [{ ...b, title: '', mode: a.mode, criteria: [d] }])[0]!.state === 'intact'; // prettier-ignore
  const rows: CriterionPair[] = [
    ...a.criteria.map((left): CriterionPair => {
      const right = pairs.get(left) ?? null;
      if (!right) return { state: 'missing', left, right, levels: left.levels.map((l) => ({ left: l, right: null })) };
      const matched = pairLevels(left, right);
      const used = new Set(matched.values());
      return {
        state: same(left, right) ? 'intact' : 'altered',
        left,
        right,
        levels: [
          ...left.levels.map((l) => ({ left: l, right: matched.get(l) ?? null })),
          ...right.levels.filter((l) => !used.has(l)).map((l) => ({ left: null, right: l })),
        ],
      };
    }),
    ...b.criteria.filter((c) => !taken.has(c)).map((right): CriterionPair => ({ state: 'extra', left: null, right, levels: right.levels.map((l) => ({ left: null, right: l })) })),
  ];
  return { rows, effect: gradeEffect(a, b) };
} // prettier-ignore
