import { foldName } from '../model/foldName.ts';
import type { ParamsOf } from '../model/codes.ts';
import { findingWith, type Finding, type Where } from '../model/finding.ts';
import { near, plainNumber } from '../model/number.ts';
import { gradedWorth, type Rubric } from '../model/rubric.ts';
import { placeOf } from '../model/origin.ts';

/** The checks of rubrics, with how much each matters. */
export const RUBRIC_CHECKS = {
  'rubric-no-levels': 'error',
  'rubric-levels-order': 'warning',
  'rubric-equal-points': 'warning',
  'rubric-weights': 'warning',
  'rubric-description-empty': 'note',
  'rubric-same-content': 'note',
  'rubric-same-name': 'warning',
  'rubric-points-differ': 'warning',
  'rubric-unattached': 'note',
} as const satisfies Partial<Record<Finding['code'], Finding['severity']>>;
type RubricCode = keyof typeof RUBRIC_CHECKS;

const found = <C extends RubricCode>(code: C, where: Partial<Where>, params: ParamsOf<C>): Finding =>
  findingWith(code, RUBRIC_CHECKS[code], where, params);

/** What is wrong with rubrics themselves, and among them. */
export function checkRubrics(rubrics: readonly Rubric[]): Finding[] {
  const out: Finding[] = [];
  for (const r of rubrics) {
    const where = { ...placeOf(r.origin), node: r.id };
    const rubric = r.title || r.id;
    const say = <C extends RubricCode>(code: C, params: ParamsOf<C>): void =>
      void out.push(found(code, where, params));
    for (const c of r.criteria) {
      const criterion = c.title || c.id;
      if (c.levels.length === 0) say('rubric-no-levels', { rubric, criterion });
      const given = c.levels.flatMap((l) => (l.points ? [l.points.high] : []));
      const up = given.every((p, at) => at === 0 || p >= given[at - 1]!);
      const down = given.every((p, at) => at === 0 || p <= given[at - 1]!);
      if (!up && !down) say('rubric-levels-order', { rubric, criterion });
      const twice = given.find((p, at) => given.indexOf(p) !== at);
      if (twice !== undefined) say('rubric-equal-points', { rubric, criterion, points: plainNumber(twice) });
      const bare = c.levels.filter((l) => l.description.trim() === '').length;
      if (bare > 0 && bare < c.levels.length)
        say('rubric-description-empty', { rubric, criterion, count: bare });
    }
    const weights = r.criteria.reduce((sum, c) => sum + (c.weight ?? 0), 0);
    if (r.mode === 'percentage' && !near(weights, 100))
      say('rubric-weights', { rubric, sum: plainNumber(weights) });
  }
  return [...out, ...among(rubrics)];
}

/**
 * What is wrong with how rubrics of a course are used: one that is worth something else than the item it
 * grades, and one that grades nothing. Of a file nothing can be said: it does not carry attachments.
 */
export function checkAttached(
  rubrics: readonly Rubric[],
  items: readonly { readonly id: string; readonly name: string; readonly points: number }[],
): Finding[] {
  const byId = new Map(items.map((i) => [i.id, i]));
  return rubrics.flatMap((r): Finding[] => {
    const rubric = r.title || r.id;
    if (r.attachedTo.length === 0) return [found('rubric-unattached', { node: r.id }, { rubric })];
    const total = gradedWorth(r);
    return r.attachedTo.flatMap((id): Finding[] => {
      const item = byId.get(id);
      if (!item || total === null || near(total, item.points)) return [];
      return [
        found(
          'rubric-points-differ',
          { node: r.id },
          { rubric, total: plainNumber(total), item: item.name, points: plainNumber(item.points) },
        ),
      ];
    });
  });
}

/** The same content under different names, and the same name with different content. */
function among(rubrics: readonly Rubric[]): Finding[] {
  const out: Finding[] = [];
  for (const [at, a] of rubrics.entries()) {
    for (const b of rubrics.slice(0, at)) {
      const [named, same] = [foldName(a.title) === foldName(b.title), rubricPrint(a) === rubricPrint(b)];
      if (same && !named)
        out.push(
          found('rubric-same-content', { node: a.id }, { first: b.title || b.id, second: a.title || a.id }),
        );
      if (named && !same) out.push(found('rubric-same-name', { node: a.id }, { title: a.title || a.id }));
    }
  }
  return out;
}

/** What a rubric says, names of itself and identifiers aside. */
export const rubricPrint = (r: Rubric): string =>
  JSON.stringify(
    r.criteria.map((c) => [
      c.title,
      c.description,
      c.weight ?? 1,
      c.levels.map((l) => [l.title, l.points, l.description]),
    ]),
  );
