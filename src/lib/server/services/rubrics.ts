import { desc, sql } from 'drizzle-orm';
import { rubricPoints, RUBRIC_TARGETS, writeRubrics, type Rubric, type RubricTarget } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import type { RubricListing } from '../../shared/types.ts';
import { db } from '../db/client.ts';
import { packages } from '../db/schema.ts';
import { packageById } from './packages.ts';

/** Every rubric of every package, the newest package first. */
export async function listRubrics(): Promise<RubricListing[]> {
  const rows = await db
    .select({
      id: packages.id,
      name: packages.name,
      broughtAt: packages.broughtAt,
      rubrics: sql<string>`json_extract(${packages.tree}, '$.rubrics')`,
    })
    .from(packages)
    .where(sql`${packages.state} = 'ready' AND json_array_length(${packages.tree}, '$.rubrics') > 0`)
    .orderBy(desc(packages.broughtAt));
  return rows.flatMap((p) =>
    (JSON.parse(p.rubrics) as Rubric[]).map((r) => ({
      packageId: p.id,
      packageName: p.name,
      id: r.id,
      title: r.title || r.id,
      criteria: r.criteria.length,
      points: rubricPoints(r),
      broughtAt: p.broughtAt,
    })),
  );
}

export async function rubricAt(packageId: string, id: string) {
  const held = await packageById(packageId);
  const rubric = held?.tree?.rubrics.find((r) => r.id === id);
  return held && rubric ? { rubric, name: held.name, findings: held.tree!.findings.filter((f) => f.where.node === id) } : null; // prettier-ignore
}

export const isRubricTarget = (text: string): text is RubricTarget =>
  (RUBRIC_TARGETS as readonly string[]).includes(text);

/** One rubric as a file. */
export const rubricFile = (rubric: Rubric, target: RubricTarget) =>
  writeRubrics([rubric], target, nodePlatform);
