import type { CourseListing } from '../../shared/courses.ts';
import type { TakenBack } from '../../shared/transfers.ts';
import { batchById, insertBatch, type Batch } from '../store/batches.ts';
import { insertPairs, pairsOf, type BatchPair } from '../store/batchPairs.ts';
import { allCourses } from '../store/courses.ts';
import { write } from '../store/database.ts';
import type { BatchPlan, PairException } from '../store/documents/batches.ts';
import { queueJob } from '../store/jobs.ts';
import { standingsOfBatch, type BatchStanding } from '../store/transfers.ts';

interface ProposedPair {
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

/** Starts a batch: its pairs and the job that works through them. @returns its id */
export const startBatch = (
  title: string,
  plan: BatchPlan,
  pairs: readonly {
    readonly source: string;
    readonly dest: string;
    readonly exception: PairException | null;
  }[],
): Promise<string> =>
  write(async (tx) => {
    const id = await insertBatch(tx, { title, plan });
    await insertPairs(tx, id, pairs);
    await queueJob(tx, 'batch', id);
    return id;
  });

export interface BatchRow {
  readonly at: number;
  readonly source: string;
  readonly dest: string;
  readonly state: 'waiting' | 'running' | 'done' | 'failed' | 'left';
  readonly trouble: string | null;
  readonly transferId: string | null;
  readonly counts: { intact: number; altered: number; missing: number; extra: number } | null;
  /** Differences nobody has decided on, and those taken as they are. */
  readonly open: number;
  readonly accepted: number;
  readonly takenBack: TakenBack | null;
}

interface BatchView extends Pick<Batch, 'id' | 'title' | 'createdAt'> {
  /** The term that all courses of a side have; null where they differ. */
  readonly terms: { readonly source: string | null; readonly dest: string | null };
  readonly rows: readonly BatchRow[];
}

/** How it stands with each pair of a batch, with courses by their ids. */
export async function batchRows(id: string): Promise<BatchRow[]> {
  const standings = await standingsOfBatch(id);
  return (await pairsOf(id)).map((p) => rowOf(p, standings.get(p.transferId ?? '') ?? NOT_YET));
}

/** A batch with a line for each pair, with courses by their names: the troubled ones first. */
export async function batchView(id: string): Promise<BatchView | null> {
  const batch = await batchById(id);
  if (!batch) return null;
  const courses = new Map((await allCourses()).map((c) => [c.id, c]));
  const pairs = await batchRows(id);
  const termOf = (side: 'source' | 'dest'): string | null => {
    const terms = new Set(pairs.map((p) => courses.get(p[side])?.term ?? ''));
    return terms.size === 1 ? [...terms][0]! : null;
  };
  const terms = { source: termOf('source'), dest: termOf('dest') };
  const name = (course: string): string => {
    const listed = courses.get(course);
    return listed ? shortName(listed, terms.source === null || terms.dest === null) : course;
  };
  const rows = pairs.map((p) => ({ ...p, source: name(p.source), dest: name(p.dest) }));
  rows.sort((a, b) => weightOf(b) - weightOf(a) || a.at - b.at);
  return { id, title: batch.title, createdAt: batch.createdAt, terms, rows };
}

const shortName = (c: CourseListing, withTerm: boolean): string =>
  `${c.code} ${c.title}, ${c.section}${withTerm ? `, ${c.term}` : ''}`;

const rowOf = (p: BatchPair, { tally, takenBack }: BatchStanding): BatchRow => ({
  at: p.at,
  source: p.sourceCourse,
  dest: p.destCourse,
  state: p.state,
  trouble: p.trouble,
  transferId: p.transferId,
  counts: tally?.counts ?? null,
  open: tally?.open ?? 0,
  accepted: tally?.accepted ?? 0,
  takenBack,
});

const NOT_YET: BatchStanding = { tally: null, takenBack: null };

const FAILED_WEIGHT = 1e9;
const MISSING_WEIGHT = 1e4;
const weightOf = (r: BatchRow): number =>
  (r.state === 'failed' || r.takenBack ? FAILED_WEIGHT : 0) +
  (r.counts ? r.counts.missing * MISSING_WEIGHT + r.open : 0);
