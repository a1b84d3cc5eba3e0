import equal from 'fast-deep-equal';
import { foldName } from '../model/foldName.ts';
import { pointsText } from '../model/levelText.ts';
import { tidyNumber } from '../model/number.ts';
import {
  criterionPoints,
  gradeOf,
  rubricPoints,
  type Criterion,
  type Rubric,
  type RubricLevel,
} from '../model/rubric.ts';
import { Differences } from './differences.ts';
import { pairByRules, pairUp } from './pairing.ts';
import type { CriteriaSaid, LevelSaid, LevelsSaid, PointsSaid } from './said.ts';
import type { ContainerReport, Difference } from './types.ts';

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
  const out = new Differences();
  out.add('title', squeeze(a.title), squeeze(b.title));
  const pairs = pairCriteria(a, b);
  const order = a.criteria.flatMap((c) => (pairs.has(c) ? [b.criteria.indexOf(pairs.get(c)!)] : []));
  const inOrder = order.every((n, at) => at === 0 || n > order[at - 1]!);
  const all = a.criteria.length === b.criteria.length && pairs.size === a.criteria.length && inOrder;
  const changed = a.criteria.filter(
    (c) => pairs.has(c) && !equal(criterionSaid(c), criterionSaid(pairs.get(c)!)),
  );
  const said = (criteria: readonly Criterion[]): CriteriaSaid => ({ criteria: criteria.map(criterionSaid) });
  if (!all) out.add('criteria', said(a.criteria), said(b.criteria));
  else out.add('criteria', said(changed), said(changed.map((c) => pairs.get(c)!)));
  const comments = (r: Rubric): CriteriaSaid => ({ freeComments: r.freeComments ?? false });
  out.add('criteria', comments(a), comments(b));
  const told = a.criteria.flatMap((c) => {
    const d = pairs.get(c);
    return d && !equal(c.levels.map(levelSaid), d.levels.map(levelSaid))
      ? [{ c, sides: levelsTold(c, d) }]
      : [];
  });
  const levels = (side: 0 | 1): LevelsSaid[] =>
    told.map(({ c, sides }) => ({ criterion: c.title, levels: sides[side] }));
  out.add('levels', levels(0), levels(1));
  out.add('points', worthOf(a), worthOf(b));
  return out.list;
}

const worthOf = (r: Rubric): PointsSaid => {
  const points = rubricPoints(r);
  return { points, percentage: points !== null && r.mode === 'percentage' };
};

/** A weight of 1 and none at all are the same. */
const criterionSaid = (c: Criterion) => ({
  title: c.title,
  description: squeeze(c.description),
  weight: c.weight === null ? 1 : tidyNumber(c.weight),
});

const levelSaid = (l: RubricLevel): LevelSaid => ({
  title: l.title,
  points: l.points && { low: tidyNumber(l.points.low), high: tidyNumber(l.points.high) },
  description: squeeze(l.description),
  feedback: squeeze(l.feedback),
});

/**
 * What differs in the levels of a criterion: those that say something else; all of them where their number or
 * order is another.
 */
function levelsTold(c: Criterion, d: Criterion): readonly [LevelSaid[], LevelSaid[]] {
  const pairs = [...pairLevels(c, d)];
  const places = pairs.map(([, y]) => d.levels.indexOf(y));
  const alike =
    c.levels.length === d.levels.length &&
    pairs.length === c.levels.length &&
    pairs.every(([x], at) => c.levels[at] === x) &&
    places.every((n, at) => n === at);
  if (!alike) return [c.levels.map(levelSaid), d.levels.map(levelSaid)];
  const changed = pairs.filter(([x, y]) => !equal(levelSaid(x), levelSaid(y)));
  return [changed.map(([x]) => levelSaid(x)), changed.map(([, y]) => levelSaid(y))];
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
