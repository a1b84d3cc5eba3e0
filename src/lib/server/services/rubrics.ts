import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm';
import {
  checkAttached,
  checkRubrics,
  find,
  outlineName,
  rubricDifferences,
  rubricPoints,
  rubricPrint,
  RUBRIC_TARGETS,
  writeRubrics,
  type CourseOutline,
  type Finding,
  type Rubric,
  type RubricTarget,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { courseName, type CourseListing } from '../../shared/courses.ts';
import type { RubricListing } from '../../shared/types.ts';
import { db } from '../db/client.ts';
import { courses, items, ownRubrics, packages, snapshots } from '../db/schema.ts';
import { courseById, latestOutline } from './courses.ts';
import { packageById, rowName } from './packages.ts';

/** The place of rubrics that were made or copied here. */
export const OWN = 'own';

/** A rubric wherever it is kept. */
export interface HeldRubricView {
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
  const rows = await db
    .select({
      id: packages.id,
      name: packages.name,
      at: packages.broughtAt,
      rubrics: sql<string>`json_extract(${packages.tree}, '$.rubrics')`,
    })
    .from(packages)
    .where(
      sql`${packages.state} = 'ready' AND ${packages.cameBy} = 'file' AND json_array_length(${packages.tree}, '$.rubrics') > 0`,
    )
    .orderBy(desc(packages.broughtAt));
  return rows.flatMap((p) =>
    (JSON.parse(p.rubrics) as Rubric[]).map((rubric) => ({
      place: p.id,
      placeName: p.name,
      kind: 'package' as const,
      rubric,
      at: p.at,
      locked: false,
      grades: [],
      findings: [],
    })),
  );
}

/** Every rubric of every course, as its outline was last asked for. */
async function inCourses(): Promise<HeldRubricView[]> {
  const looks = await db
    .select({
      courseId: snapshots.courseId,
      outline: snapshots.outline,
      takenAt: sql<number>`max(${snapshots.takenAt})`,
      listing: courses.listing,
    })
    .from(snapshots)
    .innerJoin(courses, eq(courses.id, snapshots.courseId))
    .groupBy(snapshots.courseId)
    .having(sql`json_array_length(${snapshots.outline}, '$.rubrics') > 0`);
  const out: HeldRubricView[] = [];
  for (const look of looks) {
    const outline = JSON.parse(look.outline) as CourseOutline;
    const placeName = courseName(JSON.parse(look.listing) as CourseListing);
    out.push(...(await heldIn(outline, look.courseId, placeName, look.takenAt)));
  }
  return out;
}

async function heldIn(
  outline: CourseOutline,
  place: string,
  placeName: string,
  at: number,
): Promise<HeldRubricView[]> {
  const all = outline.rubrics ?? [];
  const graded = [...new Set(all.flatMap((r) => r.rubric.attachedTo))];
  const rows =
    graded.length === 0
      ? []
      : await db
          .select({ id: items.nodeId, title: items.title, stem: items.stem, points: items.points })
          .from(items)
          .innerJoin(snapshots, eq(snapshots.packageId, items.packageId))
          .where(and(eq(snapshots.courseId, place), inArray(items.nodeId, graded)))
          .orderBy(asc(snapshots.takenAt));
  const work = (outline.assignments ?? []).map((a) => ({
    id: a.id,
    name: a.title || a.id,
    points: a.points,
  }));
  const known = [...rows.map((r) => ({ id: r.id, name: rowName(r), points: r.points })), ...work];
  const findings = [
    ...checkRubrics(all.map((r) => r.rubric)),
    ...checkAttached(
      all.map((r) => r.rubric),
      known,
    ),
  ];
  return all.map(({ rubric, locked }) => ({
    place,
    placeName,
    kind: 'course' as const,
    rubric,
    at,
    locked,
    grades: rubric.attachedTo.map(
      (id) => known.findLast((k) => k.id === id)?.name ?? outlineName(outline, id) ?? id,
    ),
    findings: findings.filter((f) => f.where.node === rubric.id),
  }));
}

async function own(): Promise<HeldRubricView[]> {
  const rows = await db.select().from(ownRubrics).orderBy(desc(ownRubrics.changedAt));
  return rows.map((row) => {
    const rubric = JSON.parse(row.rubric) as Rubric;
    return {
      place: OWN,
      placeName: row.follows ? 'follows another' : 'made here',
      kind: row.follows ? ('follower' as const) : ('own' as const),
      rubric,
      at: row.changedAt,
      locked: false,
      grades: [],
      findings: checkRubrics([rubric]),
    };
  });
}

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
  const [row] = await db.select().from(ownRubrics).where(eq(ownRubrics.id, id));
  if (!row?.fromPlace || !row.fromRubric) return null;
  const now = await rubricAt(row.fromPlace, row.fromRubric);
  const basis = row.basis ? (JSON.parse(row.basis) as Rubric) : null;
  const changed = now !== null && basis !== null && rubricDifferences(basis, now.rubric).length > 0;
  return { place: row.fromPlace, id: row.fromRubric, follows: row.follows, now, basis, changed };
}

async function followersBehind(): Promise<Set<string>> {
  const rows = await db.select({ id: ownRubrics.id }).from(ownRubrics).where(eq(ownRubrics.follows, true));
  const states = await Promise.all(rows.map(async ({ id }) => ((await originalOf(id))?.changed ? [id] : [])));
  return new Set(states.flat());
}

export const isRubricTarget = (text: string): text is RubricTarget =>
  (RUBRIC_TARGETS as readonly string[]).includes(text);

/** One rubric as a file. */
export const rubricFile = (rubric: Rubric, target: RubricTarget) =>
  writeRubrics([rubric], target, nodePlatform);
