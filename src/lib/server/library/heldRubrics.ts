import {
  checkAttached,
  checkRubrics,
  type CourseOutline,
  find,
  type Finding,
  outlineName,
  type Rubric,
  RUBRIC_TARGETS,
  rubricDifferences,
  rubricPoints,
  rubricPrint,
  type RubricTarget,
  UNNAMED,
  writeRubrics,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { courseName } from '../../shared/courses.ts';
import type { RubricListing } from '../../shared/types.ts';
import { courseById } from '../store/courses.ts';
import { itemLinesOfCourse, titledName } from '../store/items.ts';
import { listOwnRubrics, ownRubricById } from '../store/ownRubrics.ts';
import { packageById, packagesWithRubrics } from '../store/packages.ts';
import { latestOutline, outlinesWithRubrics } from '../store/snapshots.ts';

/** The place of rubrics that were made or copied here. */
export const OWN = 'own';

/** A rubric wherever it is kept. */
interface HeldRubricView {
  readonly place: string;
  readonly placeName: string;
  readonly kind: RubricListing['kind'];
  readonly rubric: Rubric;
  readonly at: number;
  readonly locked: boolean;
  /** Names of what it grades there. */
  readonly grades: readonly string[];
  readonly findings: readonly Finding[];
}

/** Every rubric of every package that came as a file, the newest first. */
async function inPackages(): Promise<HeldRubricView[]> {
  return (await packagesWithRubrics('file')).flatMap(({ id, name, broughtAt, tree }) =>
    tree.rubrics.map((rubric) => ({
      place: id,
      placeName: name,
      kind: 'package' as const,
      rubric,
      at: broughtAt,
      locked: false,
      grades: [],
      findings: [],
    })),
  );
}

/** Every rubric of every course, as its outline was last asked for. */
async function inCourses(): Promise<HeldRubricView[]> {
  const held = await Promise.all(
    (await outlinesWithRubrics()).map(({ course, outline, takenAt }) =>
      heldIn(outline, course.id, courseName(course), takenAt),
    ),
  );
  return held.flat();
}

async function heldIn(
  outline: CourseOutline,
  place: string,
  placeName: string,
  at: number,
): Promise<HeldRubricView[]> {
  const all = outline.rubrics ?? [];
  const rubrics = all.map((r) => r.rubric);
  const graded = [...new Set(rubrics.flatMap((r) => r.attachedTo))];
  const lines = await itemLinesOfCourse(place, graded);
  const work = (outline.assignments ?? []).map(({ id, title, points }) => ({
    id,
    name: title || UNNAMED.assignment,
    points,
  }));
  const known = [...lines.map((l) => ({ id: l.id, name: titledName(l), points: l.points })), ...work];
  const findings = [...checkRubrics(rubrics), ...checkAttached(rubrics, known)];
  const named = (id: string): string =>
    known.findLast((k) => k.id === id)?.name ?? outlineName(outline, id) ?? UNNAMED.item;
  return all.map(({ rubric, locked }) => ({
    place,
    placeName,
    kind: 'course' as const,
    rubric,
    at,
    locked,
    grades: rubric.attachedTo.map(named),
    findings: findings.filter((f) => f.where.node === rubric.id),
  }));
}

const own = async (): Promise<HeldRubricView[]> =>
  (await listOwnRubrics()).map(({ rubric, follows, changedAt }) => ({
    place: OWN,
    placeName: follows ? 'linked copy' : 'made here',
    kind: follows ? ('follower' as const) : ('own' as const),
    rubric,
    at: changedAt,
    locked: false,
    grades: [],
    findings: checkRubrics([rubric]),
  }));

/** Every rubric there is: one's own first, then those of courses, then those of files. */
export async function listRubrics(): Promise<RubricListing[]> {
  const [mine, there, files] = await Promise.all([own(), inCourses(), inPackages()]);
  const used = new Map<string, string[]>();
  for (const { rubric, grades, placeName } of there) {
    const print = rubricPrint(rubric);
    used.set(print, [...(used.get(print) ?? []), ...grades.map((g) => `${g}, ${placeName}`)]);
  }
  const behind = await followersBehind();
  return [...mine, ...there, ...files].map(({ place, placeName, kind, rubric, at, grades }) => ({
    place,
    placeName,
    kind,
    at,
    id: rubric.id,
    title: rubric.title || rubric.id,
    criteria: rubric.criteria.length,
    points: rubricPoints(rubric),
    grades: kind === 'course' ? grades : (used.get(rubricPrint(rubric)) ?? []),
    behind: place === OWN && behind.has(rubric.id),
  }));
}

/** Rubrics by any part of their name, place or what they grade, in any order, forgiving spelling. */
export async function findRubrics(query: string): Promise<RubricListing[]> {
  const all = query.trim() === '' ? [] : await listRubrics();
  return find(all, query, (r) => `${r.title} rubric ${r.placeName} ${r.grades.join(' ')}`).map(
    (h) => h.entry,
  );
}

/** A rubric by where it is kept and its id there; null where there is none. */
export async function rubricAt(place: string, id: string): Promise<HeldRubricView | null> {
  if (place === OWN) return (await own()).find((r) => r.rubric.id === id) ?? null;
  if (place.includes(':')) {
    const [look, course] = [await latestOutline(place), await courseById(place)];
    if (!look || !course) return null;
    const all = await heldIn(look.outline, place, courseName(course), look.takenAt);
    return all.find((r) => r.rubric.id === id) ?? null;
  }
  const held = await packageById(place);
  const rubric = held?.tree?.rubrics.find((r) => r.id === id);
  if (!held || !rubric) return null;
  const findings = held.tree!.findings.filter((f) => f.where.node === id);
  return {
    place,
    placeName: held.name,
    kind: 'package',
    rubric,
    at: held.broughtAt,
    locked: false,
    grades: [],
    findings,
  };
}

/** The original of a follower as it is now, and whether it differs from what was taken over. */
export async function originalOf(id: string) {
  const held = await ownRubricById(id);
  if (!held?.fromPlace || !held.fromRubric) return null;
  const { fromPlace, fromRubric, follows, basis } = held;
  const now = await rubricAt(fromPlace, fromRubric);
  const changed = now !== null && basis !== null && rubricDifferences(basis, now.rubric).length > 0;
  return { place: fromPlace, id: fromRubric, follows, now, basis, changed };
}

/** Ids of followers whose original has changed since it was last taken over. */
async function followersBehind(): Promise<Set<string>> {
  const followers = (await listOwnRubrics()).filter((r) => r.follows);
  const states = await Promise.all(
    followers.map(async ({ id }) => ((await originalOf(id))?.changed ? [id] : [])),
  );
  return new Set(states.flat());
}

/** One's own rubrics whose original has changed, as the desk tells them; looks at no others. */
export async function rubricsBehind(): Promise<{ id: string; title: string; at: number }[]> {
  const behind = await followersBehind();
  return (await listOwnRubrics())
    .filter(({ rubric }) => behind.has(rubric.id))
    .map(({ rubric, changedAt }) => ({ id: rubric.id, title: rubric.title || rubric.id, at: changedAt }));
}

export const isRubricTarget = (text: string): text is RubricTarget =>
  (RUBRIC_TARGETS as readonly string[]).includes(text);

/** One rubric as a file. */
export const rubricFile = (rubric: Rubric, target: RubricTarget) =>
  writeRubrics([rubric], target, nodePlatform);
