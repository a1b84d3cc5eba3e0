import {
  checkAttached,
  checkRubrics,
  Lately,
  outlineName,
  rubricPoints,
  rubricPrint,
  UNNAMED,
  writeRubrics,
  type CourseOutline,
  type Finding,
  type Rubric,
  type RubricTarget,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { courseName } from '../../shared/courses.ts';
import type { RubricListing } from '../../shared/types.ts';
import { courseById } from '../store/courses.ts';
import { itemLinesOfCourse, titledName } from '../store/items.ts';
import { packageById, packagesWithRubrics } from '../store/packages.ts';
import { isCourse } from '../store/places.ts';
import { latestOutline, outlinesWithRubrics } from '../store/snapshots.ts';

/** Rubrics of courses and of packages that came as files: some are very large, and are gone through here. */

/** A rubric wherever it is kept. */
export interface HeldRubric {
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

/** Every rubric of every course, as its outline was last asked for. */
async function inCourses(): Promise<HeldRubric[]> {
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
): Promise<HeldRubric[]> {
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

/** A rubric as lists show it, with what tells it from others. */
export interface ListedRubric {
  readonly listing: RubricListing;
  readonly print: string;
}

export const listed = (held: Omit<HeldRubric, 'locked' | 'findings'>): ListedRubric => ({
  listing: {
    place: held.place,
    placeName: held.placeName,
    kind: held.kind,
    at: held.at,
    id: held.rubric.id,
    title: held.rubric.title || held.rubric.id,
    criteria: held.rubric.criteria.length,
    points: rubricPoints(held.rubric),
    grades: held.grades,
    behind: false,
  },
  print: rubricPrint(held.rubric),
});

/** What this thread has listed lately, by reading: what was read does not change. */
const lately = new Lately<readonly ListedRubric[]>(500);

async function listedIn(id: string, readingId: string): Promise<readonly ListedRubric[]> {
  const had = lately.get(readingId);
  if (had) return had;
  const held = await packageById(id);
  const all = (held?.tree?.rubrics ?? []).map((rubric) =>
    listed({ place: id, placeName: '', kind: 'package', rubric, at: 0, grades: [] }),
  );
  if (held?.readingId === readingId) lately.set(readingId, all);
  return all;
}

/** Every rubric of every course, then of every package that came as a file, the newest first. */
export async function listRubricsTask(): Promise<ListedRubric[]> {
  const files: ListedRubric[] = [];
  for (const { id, readingId, name, broughtAt } of await packagesWithRubrics('file'))
    for (const one of await listedIn(id, readingId))
      files.push({ ...one, listing: { ...one.listing, placeName: name, at: broughtAt } });
  return [...(await inCourses()).map(listed), ...files];
}

/** A rubric by the course or package it is in, and its id there. */
export interface RubricAsked {
  readonly place: string;
  readonly rubric: string;
}

async function heldAt({ place, rubric: id }: RubricAsked): Promise<HeldRubric | null> {
  if (isCourse(place)) {
    const [look, course] = [await latestOutline(place), await courseById(place)];
    if (!look || !course) return null;
    const all = await heldIn(look.outline, place, courseName(course), look.takenAt);
    return all.find((r) => r.rubric.id === id) ?? null;
  }
  const held = await packageById(place);
  const rubric = held?.tree?.rubrics.find((r) => r.id === id);
  if (!held?.tree || !rubric) return null;
  return {
    place,
    placeName: held.name,
    kind: 'package',
    rubric,
    at: held.broughtAt,
    locked: false,
    grades: [],
    findings: held.tree.findings.filter((f) => f.where.node === id),
  };
}

/** Criteria of a rubric that pages show; one with more is no rubric that anybody grades with. */
export const MOST_CRITERIA = 500;

/** A rubric as pages show it: of a very long one its first criteria, and how many there are. */
export interface ShownRubric extends HeldRubric {
  readonly criteria: number;
  readonly points: number | null;
}

export const shown = (held: HeldRubric): ShownRubric => ({
  ...held,
  rubric: { ...held.rubric, criteria: held.rubric.criteria.slice(0, MOST_CRITERIA) },
  criteria: held.rubric.criteria.length,
  points: rubricPoints(held.rubric),
});

/** A rubric of a course or a package; null where there is none. */
export async function rubricThereTask(asked: RubricAsked): Promise<ShownRubric | null> {
  const held = await heldAt(asked);
  return held && shown(held);
}

export interface RubricFileAsked {
  /** Rubrics of one's own as they are, others by where they are kept. */
  readonly rubrics: readonly (Rubric | RubricAsked)[];
  readonly target: RubricTarget;
}

/** Rubrics as one file, with the name of the first; null where one of them is no longer there. */
export async function rubricFileTask({
  rubrics: wanted,
  target,
}: RubricFileAsked): Promise<{ readonly bytes: Uint8Array; readonly title: string } | null> {
  const rubrics: Rubric[] = [];
  for (const one of wanted) {
    const rubric = 'place' in one ? (await heldAt(one))?.rubric : one;
    if (!rubric) return null;
    rubrics.push(rubric);
  }
  const { bytes } = await writeRubrics(rubrics, target, nodePlatform);
  return { bytes, title: rubrics[0]?.title ?? '' };
}
