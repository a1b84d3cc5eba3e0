import { randomUUID } from 'node:crypto';
import { asc, desc, eq } from 'drizzle-orm';
import { THING_KINDS, type ThingKind } from '@alforja/core';
import { z } from 'zod';
import { partsOfCourse, type CourseListing } from '../../shared/courses.ts';
import type { TransferOptions } from '../../shared/courses.ts';
import type { Tally } from '../../shared/types.ts';
import { db, write } from '../db/client.ts';
import { batches, batchPairs, transfers } from '../db/schema.ts';
import { enqueue } from '../jobs/queue.ts';
import { allCourses } from './courses.ts';

/** What goes and how it lands, for every pair of a batch. */
export interface BatchPlan {
  readonly kinds: readonly ThingKind[];
  readonly options: TransferOptions;
}
export const PairException = z.object({
  /** Other kinds for this pair; empty leaves it out. */
  kinds: z.array(z.enum(THING_KINDS)),
});
export type PairException = z.infer<typeof PairException>;

export interface ProposedPair {
  readonly source: CourseListing;
  readonly dest: CourseListing | null;
}

/** Pairs of the courses of one term with those of another: by code and section, then code, then title. */
export async function proposePairs(fromTerm: string, toTerm: string): Promise<ProposedPair[]> {
  const all = await allCourses();
  const old = all.filter((c) => c.term === fromTerm && c.items > 0);
  const left = new Set(all.filter((c) => c.term === toTerm && c.mayChange));
  const pairs = new Map<CourseListing, CourseListing>();
  const rounds: ((a: CourseListing, b: CourseListing) => boolean)[] = [
    (a, b) => a.code !== '' && a.code === b.code && a.section === b.section && a.systemId === b.systemId,
    (a, b) => a.code !== '' && a.code === b.code && a.systemId === b.systemId,
    (a, b) => a.code !== '' && a.code === b.code,
    (a, b) => a.title === b.title,
  ];
  for (const fits of rounds)
    for (const source of old) {
      if (pairs.has(source)) continue;
      const dest = [...left].find((c) => fits(source, c));
      if (!dest) continue;
      pairs.set(source, dest);
      left.delete(dest);
    }
  return old.map((source) => ({ source, dest: pairs.get(source) ?? null }));
}

/** A course named in a table: by its system's identifier, or by code, term and section. */
export function courseNamed(all: readonly CourseListing[], name: string): CourseListing | null {
  const said = name.trim().toLowerCase();
  const exact = all.filter(
    (c) => c.id.toLowerCase() === said || partsOfCourse(c.id).classId.toLowerCase() === said,
  );
  if (exact.length === 1) return exact[0]!;
  const whole = all.filter((c) => `${c.code} ${c.section} ${c.term}`.toLowerCase() === said);
  return whole.length === 1 ? whole[0]! : null;
}

export async function startBatch(
  title: string,
  plan: BatchPlan,
  pairs: readonly { source: string; dest: string; exception: PairException | null }[],
): Promise<string> {
  const id = randomUUID();
  await write(async (tx) => {
    await tx.insert(batches).values({ id, title, createdAt: Date.now(), plan: JSON.stringify(plan) });
    for (const [at, { source, dest, exception }] of pairs.entries())
      await tx.insert(batchPairs).values({
        batchId: id,
        at,
        sourceCourse: source,
        destCourse: dest,
        exception: exception && JSON.stringify(exception),
        transferId: null,
        state: exception?.kinds.length === 0 ? 'left' : 'waiting',
        trouble: null,
      });
  });
  await enqueue('batch', id);
  return id;
}

export const listBatches = async () =>
  (await db.select().from(batches).orderBy(desc(batches.createdAt)).limit(20)).map(
    ({ id, title, createdAt }) => ({ id, title, createdAt }),
  );

export interface BatchRow {
  readonly at: number;
  readonly source: string;
  readonly dest: string;
  readonly state: 'waiting' | 'running' | 'done' | 'failed' | 'left';
  readonly trouble: string | null;
  readonly transferId: string | null;
  readonly counts: { intact: number; altered: number; missing: number; extra: number } | null;
  /** Differences nobody has decided on. */
  readonly open: number;
}

/** A batch with a line for each pair: the troubled ones first. */
export async function batchById(id: string) {
  const [batch] = await db.select().from(batches).where(eq(batches.id, id));
  if (!batch) return null;
  const pairs = await db
    .select()
    .from(batchPairs)
    .where(eq(batchPairs.batchId, id))
    .orderBy(asc(batchPairs.at));
  const of = await db
    .select({ id: transfers.id, tally: transfers.tally })
    .from(transfers)
    .where(eq(transfers.batchId, id));
  const names = new Map((await allCourses()).map((c) => [c.id, c]));
  const say = (course: string): string => {
    const c = names.get(course);
    return c ? `${c.code} ${c.title}, ${c.section}, ${c.term}` : course;
  };
  const rows = pairs.map((p): BatchRow => {
    const said = of.find((t) => t.id === p.transferId)?.tally;
    const tally = said ? (JSON.parse(said) as Tally) : null;
    return {
      at: p.at,
      source: say(p.sourceCourse),
      dest: say(p.destCourse),
      state: p.state,
      trouble: p.trouble,
      transferId: p.transferId,
      counts: tally?.counts ?? null,
      open: tally?.open ?? 0,
    };
  });
  const weight = (r: BatchRow): number =>
    (r.state === 'failed' ? 1e9 : 0) + (r.counts ? r.counts.missing * 1e4 + r.open : 0);
  rows.sort((a, b) => weight(b) - weight(a) || a.at - b.at);
  return { id, title: batch.title, createdAt: batch.createdAt, rows };
}
