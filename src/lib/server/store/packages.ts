import { randomUUID } from 'node:crypto';
import { and, desc, eq, inArray, isNotNull, isNull, lt, ne, or, sql, type SQL } from 'drizzle-orm';
import { speak, type Finding, type Tree } from '@alforja/core';
import { NOTHING_PUT_RIGHT, type PutRight } from '../../shared/edits.ts';
import type { FamilyListing, PackageListing, PackageSummary } from '../../shared/types.ts';
import { db, type Reading, type Transaction } from './database.ts';
import { leftOutCodec, stepIdsCodec } from './documents/edits.ts';
import { findingCodec, summaryCodec } from './documents/packages.ts';
import { readingById } from './readings.ts';
import { packages, readings } from './schema.ts';
import { throwing } from './thrown.ts';

type CameBy = PackageListing['cameBy'];

/** A package with what it holds, items apart; the tree is null until it has been read. */
export interface Package extends PackageListing {
  readonly sha256: string;
  readonly readingId: string | null;
  readonly tree: Tree | null;
  readonly families: readonly FamilyListing[];
  /** What its edits come to; nothing where it has none. */
  readonly putRight: PutRight;
}

/** Without the tree, which may be long. */
const LISTED = {
  id: packages.id,
  sha256: packages.sha256,
  name: packages.name,
  bytes: packages.bytes,
  broughtAt: packages.broughtAt,
  state: packages.state,
  summary: packages.summary,
  failure: packages.failure,
  cameBy: packages.cameBy,
  readingId: packages.readingId,
  settledAt: packages.settledAt,
  changed: packages.changed,
};

type Listed = Pick<typeof packages.$inferSelect, keyof typeof LISTED>;

function listing(row: Listed): PackageListing {
  const failure = findingCodec.readOptional(row.failure);
  const { id, name, bytes, broughtAt, cameBy, state, settledAt, changed } = row;
  const summary = summaryCodec.readOptional(row.summary);
  return {
    id,
    name,
    bytes,
    broughtAt,
    cameBy,
    state,
    settledAt,
    summary,
    failure: failure && speak(failure),
    changed,
  };
}

/** Packages, newest first. @param cameBy only those that came like this */
export async function listPackages(limit = 500, cameBy?: CameBy): Promise<PackageListing[]> {
  const rows = await db
    .select(LISTED)
    .from(packages)
    .where(and(isNull(packages.thrownAt), cameBy ? eq(packages.cameBy, cameBy) : undefined))
    .orderBy(desc(packages.broughtAt))
    .limit(limit);
  return rows.map(listing);
}

export async function packageById(id: string): Promise<Package | null> {
  for (let before: string | null = null; ;) {
    const [row] = await db.select(LISTED).from(packages).where(eq(packages.id, id));
    if (!row) return null;
    const { sha256, readingId } = row;
    const whole = { ...listing(row), sha256, readingId };
    if (row.state !== 'ready' || readingId === null || readingId === before)
      return { ...whole, ...NOTHING_READ };
    const read = await readingById(readingId);
    if (read) return { ...whole, ...read };
    // Read anew meanwhile, it is shown by another reading now.
    before = readingId;
  }
}

/** The reading that shows a package, the steps that it is shown with, and what they left out. */
export async function putRightShown(
  id: string,
): Promise<(Pick<PutRight, 'steps' | 'leftOut'> & { readonly readingId: string }) | null> {
  // What could be put right beside them may be very long, and is left where it is.
  const part = (of: string): SQL<string | null> => sql`json_extract(${readings.putRight}, ${`$.${of}`})`;
  const [row] = await db
    .select({ readingId: readings.id, steps: part('steps'), leftOut: part('leftOut') })
    .from(packages)
    .innerJoin(readings, eq(readings.id, packages.readingId))
    .where(and(eq(packages.id, id), eq(packages.state, 'ready')));
  if (!row) return null;
  const { steps, leftOut } = NOTHING_PUT_RIGHT;
  return {
    readingId: row.readingId,
    steps: stepIdsCodec.readOptional(row.steps) ?? steps,
    leftOut: leftOutCodec.readOptional(row.leftOut) ?? leftOut,
  };
}

/** A package as lists show it, and where its bytes stand. */
export async function packageHead(id: string): Promise<(PackageListing & Pick<Package, 'sha256'>) | null> {
  const [row] = await db.select(LISTED).from(packages).where(eq(packages.id, id));
  return row ? { ...listing(row), sha256: row.sha256 } : null;
}

const NOTHING_READ = { tree: null, families: [], putRight: NOTHING_PUT_RIGHT };

/** The sha256 of every package there is, thrown away or not. */
export const packageSums = async (on: Reading = db): Promise<string[]> =>
  (await on.select({ sha256: packages.sha256 }).from(packages)).map((row) => row.sha256);

/** A package as lists show it. */
export async function packageListing(id: string): Promise<PackageListing | null> {
  const head = await packageHead(id);
  if (!head) return null;
  const { sha256: _, ...listed } = head;
  return listed;
}

/** Where the bytes and the rows of a package stand; without what it holds. */
export async function packageFile(
  id: string,
  on: Reading = db,
): Promise<Pick<Package, 'id' | 'name' | 'sha256' | 'state' | 'readingId'> | null> {
  // Asked for every file that is shown: nothing of it is worked out.
  const { name, sha256, state, readingId } = packages;
  const [row] = await on
    .select({ id: packages.id, name, sha256, state, readingId })
    .from(packages)
    .where(eq(packages.id, id));
  return row ?? null;
}

/** Every package of this origin that has been read and holds rubrics, with its reading; newest first. */
export async function packagesWithRubrics(
  cameBy: CameBy,
): Promise<(Pick<PackageListing, 'id' | 'name' | 'broughtAt'> & { readonly readingId: string })[]> {
  const { id, name, broughtAt, readingId, summary } = packages;
  const rows = await db
    .select({ id, name, broughtAt, readingId, summary })
    .from(packages)
    .where(and(eq(packages.state, 'ready'), eq(packages.cameBy, cameBy), isNull(packages.thrownAt)))
    .orderBy(desc(packages.broughtAt));
  return rows.flatMap(({ summary: text, readingId: shownBy, ...row }) =>
    shownBy !== null && (summaryCodec.readOptional(text)?.rubrics ?? 0) > 0
      ? [{ ...row, readingId: shownBy }]
      : [],
  );
}

/**
 * Keeps stored bytes as a package; the same bytes are the same package.
 * @returns the package, and whether it was known before
 */
export async function keepPackage(
  tx: Transaction,
  given: { readonly name: string; readonly sha256: string; readonly bytes: number; readonly cameBy: CameBy },
): Promise<{ package: PackageListing; known: boolean }> {
  const { name, cameBy } = given;
  const [had] = await tx.select(LISTED).from(packages).where(eq(packages.sha256, given.sha256));
  if (had) {
    // What was made here, or was a part of something, and is brought by a person is a file of theirs from now on.
    const brought = (had.cameBy === 'made' || had.cameBy === 'part') && cameBy === 'file';
    // What comes in again is no longer thrown away.
    await tx
      .update(packages)
      .set({ thrownAt: null, ...(brought ? { cameBy, name } : {}) })
      .where(eq(packages.id, had.id));
    const row = brought ? { ...had, cameBy, name } : had;
    return { package: listing(row), known: true };
  }
  const row = { id: randomUUID(), ...given, broughtAt: Date.now(), state: 'reading' as const };
  await tx.insert(packages).values(row);
  const unread = { summary: null, failure: null, readingId: null, settledAt: null, changed: 0 };
  return { package: listing({ ...row, ...unread }), known: false };
}

/** Files that went together into another one are listed as parts of it. */
export const markParts = (tx: Transaction, ids: readonly string[]): Promise<unknown> =>
  tx
    .update(packages)
    .set({ cameBy: 'part' })
    .where(and(inArray(packages.id, [...ids]), eq(packages.cameBy, 'file')));

/** What a reading of a package came to, as lists show it. */
interface ReadingDone {
  readonly readingId: string;
  readonly basis: string;
  readonly summary: PackageSummary;
  readonly changed: number;
}

/** Shows a package by a reading. @returns the reading it was shown by before */
export async function showReading(tx: Transaction, id: string, done: ReadingDone): Promise<string | null> {
  const [before] = await tx
    .select({ readingId: packages.readingId })
    .from(packages)
    .where(eq(packages.id, id));
  await tx
    .update(packages)
    .set({
      state: 'ready',
      readingId: done.readingId,
      readingBasis: done.basis,
      summary: summaryCodec.write(done.summary),
      changed: done.changed,
      failure: null,
    })
    .where(eq(packages.id, id));
  return before?.readingId ?? null;
}

/** Notes that a package could not be read; one that is shown by an earlier reading stays as it is. */
export async function noteFailure(tx: Transaction, id: string, failure: Finding): Promise<void> {
  const [row] = await tx.select(LISTED).from(packages).where(eq(packages.id, id));
  if (!row || row.state === 'ready') return;
  await tx
    .update(packages)
    .set({ state: 'failed', failure: findingCodec.write(failure) })
    .where(eq(packages.id, id));
}

/** Notes that a package that could not be read is read once more; one that is shown stays as it is. */
export const noteReading = (tx: Transaction, id: string): Promise<unknown> =>
  tx
    .update(packages)
    .set({ state: 'reading', failure: null })
    .where(and(eq(packages.id, id), ne(packages.state, 'ready')));

/** Packages that are being read, or were when that was broken off. */
export const packagesInReading = (on: Reading): Promise<Pick<Package, 'id' | 'cameBy'>[]> =>
  on.select({ id: packages.id, cameBy: packages.cameBy }).from(packages).where(eq(packages.state, 'reading'));

/** What each package that is shown was read on; for finding those to be read anew. */
export async function readingBases(): Promise<
  { id: string; basis: string | null; summary: PackageSummary }[]
> {
  const rows = await db
    .select({ id: packages.id, basis: packages.readingBasis, summary: packages.summary })
    .from(packages)
    .where(and(eq(packages.state, 'ready'), isNotNull(packages.summary)));
  return rows.map(({ id, basis, summary }) => ({ id, basis, summary: summaryCodec.read(summary!) }));
}

/** What a package that is shown was read on; null where it is not shown. */
export async function readingBasis(
  id: string,
): Promise<{ basis: string | null; summary: PackageSummary } | null> {
  const [row] = await db
    .select({ basis: packages.readingBasis, summary: packages.summary, state: packages.state })
    .from(packages)
    .where(eq(packages.id, id));
  return row?.state === 'ready' && row.summary !== null
    ? { basis: row.basis, summary: summaryCodec.read(row.summary) }
    : null;
}

/** Says that what was found in a package is dealt with, or takes that back. @param at ms; null takes it back */
export const settleFindings = (tx: Transaction, id: string, at: number | null): Promise<unknown> =>
  tx.update(packages).set({ settledAt: at }).where(eq(packages.id, id));

/** Throws a package away, or brings it back. @param at ms; null brings it back. @returns whether there is one */
export const setPackageThrown = throwing(packages);

/**
 * Removes packages that were thrown away, or made here, before a moment, but for those that a transfer, a look or
 * something that is made here rests on.
 * @returns how many
 */
export async function purgePackages(tx: Transaction, before: number): Promise<number> {
  const gone = await tx
    .delete(packages)
    .where(
      and(
        or(
          lt(packages.thrownAt, before),
          // What was made here is made again whenever it changes.
          and(eq(packages.cameBy, 'made'), lt(packages.broughtAt, before)),
          // What came with a look that is gone can be looked into again.
          and(eq(packages.cameBy, 'course'), lt(packages.broughtAt, before)),
        ),
        sql`NOT EXISTS (SELECT 1 FROM transfers t WHERE ${packages.id} IN (t.package_id, t.arrived_package_id))`,
        sql`NOT EXISTS (SELECT 1 FROM snapshots s WHERE s.package_id = ${packages.id})`,
        sql`NOT EXISTS (SELECT 1 FROM made m WHERE m.package_id = ${packages.id})`,
        sql`NOT EXISTS (SELECT 1 FROM taken_items i WHERE i.package_id = ${packages.id})`,
      ),
    )
    .returning({ id: packages.id });
  return gone.length;
}
