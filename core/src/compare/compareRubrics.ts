import { foldName } from '../model/foldName.ts';
import { pointsText } from '../model/levelText.ts';
import { plainNumber } from '../model/number.ts';
import {
  criterionPoints,
  gradeOf,
  rubricPoints,
  type Criterion,
  type Rubric,
  type RubricLevel,
} from '../model/rubric.ts';
import { pairByRules, pairUp } from './pairing.ts';
import type { ContainerReport, Difference, Facet } from './types.ts';

/** Compares rubrics: paired by identifier, else by name, else by the criteria they share. */
export const compareRubrics = (source: readonly Rubric[], arrived: readonly Rubric[]): ContainerReport[] =>
  pairUp<Rubric>(
    'rubric',
    source,
    arrived,
    [
      (a, b) => a.id === b.id,
      (a, b) => a.title !== '' && foldName(a.title) === foldName(b.title),
      (a, b) => sharedCriteria(a, b) * 2 >= Math.max(1, a.criteria.length),
    ],
    rubricDifferences,
  );

/** How many criteria of the first the second has under the same title. */
export const sharedCriteria = (a: Rubric, b: Rubric): number =>
  a.criteria.filter((c) => b.criteria.some((d) => foldName(c.title) === foldName(d.title))).length;

/** Pairs of criteria, and of the levels within each, as they answer to each other. */
export function pairCriteria(a: Rubric, b: Rubric): Map<Criterion, Criterion> {
  return pairByRules(a.criteria, b.criteria, [
    (c, d) => c.id === d.id && foldName(c.title) === foldName(d.title),
    (c, d) => foldName(c.title) === foldName(d.title),
    (c, d) => c.id === d.id,
  ]);
}
export const pairLevels = (c: Criterion, d: Criterion): Map<RubricLevel, RubricLevel> =>
  pairByRules(c.levels, d.levels, [
    (x, y) => x.title !== '' && foldName(x.title) === foldName(y.title),
    (x, y) => c.levels.indexOf(x) === d.levels.indexOf(y),
  ]);

/** What of a rubric is otherwise in another: title, criteria, levels, what it is worth. */
export function rubricDifferences(a: Rubric, b: Rubric): Difference[] {
  const out: Difference[] = [];
  const add = (facet: Facet, from: string, to: string): void => {
    if (from !== to) out.push({ facet, from, to, example: null });
  };
  add('title', squeeze(a.title), squeeze(b.title));
  const pairs = pairCriteria(a, b);
  const said = (c: Criterion): string =>
    [
      c.title,
      squeeze(c.description),
      c.weight === null || c.weight === 1 ? '' : `weight ${plainNumber(c.weight)}`,
    ]
      .filter((t) => t !== '')
      .join(', ');
  const order = a.criteria.flatMap((c) => (pairs.has(c) ? [b.criteria.indexOf(pairs.get(c)!)] : []));
  const inOrder = order.every((n, at) => at === 0 || n > order[at - 1]!);
  const all = a.criteria.length === b.criteria.length && pairs.size === a.criteria.length && inOrder;
  const changed = a.criteria.filter((c) => pairs.has(c) && said(c) !== said(pairs.get(c)!));
  if (!all) add('criteria', a.criteria.map(said).join('; '), b.criteria.map(said).join('; '));
  else if (changed.length > 0)
    add('criteria', changed.map(said).join('; '), changed.map((c) => said(pairs.get(c)!)).join('; '));
  if ((a.freeComments ?? false) !== (b.freeComments ?? false))
    add('criteria', commentsSaid(a), commentsSaid(b));
  const levels = a.criteria.filter((c) => pairs.has(c) && levelsSaid(c) !== levelsSaid(pairs.get(c)!));
  const told = levels.map((c) => ({ c, sides: levelsTold(c, pairs.get(c)!) }));
  if (levels.length > 0)
    add(
      'levels',
      told.map(({ c, sides }) => `${c.title}: ${sides[0]}`).join('\n'),
      told.map(({ c, sides }) => `${c.title}: ${sides[1]}`).join('\n'),
    );
  const [from, to] = [rubricPoints(a), rubricPoints(b)];
  const worth = (r: Rubric, total: number | null): string =>
    total === null
      ? 'not scored'
      : `${plainNumber(total)}${r.mode === 'percentage' ? ', by percentage' : ''}`;
  add('points', worth(a, from), worth(b, to));
  return out;
}

const commentsSaid = (r: Rubric): string => (r.freeComments ? 'with free comments' : 'without free comments');
const levelSaid = (l: RubricLevel): string =>
  [l.title, pointsText(l.points), squeeze(l.description), squeeze(l.feedback)]
    .filter((t) => t !== '')
    .join(', ');
const levelsSaid = (c: Criterion): string => c.levels.map(levelSaid).join(' / ');

/**
 * What differs in the levels of a criterion: those that say something else; all of them where their number or
 * order is another.
 */
function levelsTold(c: Criterion, d: Criterion): readonly [string, string] {
  const pairs = [...pairLevels(c, d)];
  const places = pairs.map(([, y]) => d.levels.indexOf(y));
  const alike =
    c.levels.length === d.levels.length &&
    pairs.length === c.levels.length &&
    pairs.every(([x], at) => c.levels[at] === x) &&
    places.every((n, at) => n === at);
  if (!alike) return [levelsSaid(c), levelsSaid(d)];
  const changed = pairs.filter(([x, y]) => levelSaid(x) !== levelSaid(y));
  return [
    changed.map(([x]) => levelSaid(x)).join(' / '),
    changed.map(([, y]) => levelSaid(y) || 'nothing').join(' / '),
  ];
}

const squeeze = (text: string): string => text.normalize('NFC').replace(/\s+/gu, ' ').trim();

export interface GradeEffect {
  /** The level ticked in each criterion, by its label. */
  readonly ticks: readonly string[];
  readonly from: number;
  readonly to: number;
  /** What each side gives at most. */
  readonly outOf: readonly [number, number];
}

/**
 * The same ticks on both sides that come to the most different grades: for each criterion the level that
 * differs most.
 */
export function gradeEffect(a: Rubric, b: Rubric): GradeEffect | null {
  const pairs = pairCriteria(a, b);
  const left = new Map<string, string>();
  const right = new Map<string, string>();
  const ticks: string[] = [];
  for (const [c, d] of pairs) {
    const levels = [...pairLevels(c, d)];
    const gap = ([x, y]: [RubricLevel, RubricLevel]): number =>
      Math.abs((x.points?.high ?? 0) * (c.weight ?? 1) - (y.points?.high ?? 0) * (d.weight ?? 1));
    const worst = levels.sort(
      (x, y) => gap(y) - gap(x) || (y[0].points?.high ?? 0) - (x[0].points?.high ?? 0),
    )[0];
    if (!worst) continue;
    left.set(c.id, worst[0].id);
    right.set(d.id, worst[1].id);
    ticks.push(`${c.title}: ${worst[0].title || pointsText(worst[0].points)}`);
  }
  const [from, to] = [gradeOf(a, left), gradeOf(b, right)];
  if (from === null || to === null || from === to) return null;
  const most = (r: Rubric): number => r.criteria.reduce((sum, c) => sum + criterionPoints(c), 0);
  return { ticks, from, to, outOf: [most(a), most(b)] };
}
