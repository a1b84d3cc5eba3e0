import { randomUUID } from 'node:crypto';
import { and, asc, desc, eq, gte, lt, sql } from 'drizzle-orm';
import { speak, type Finding, type Item } from '@alforja/core';
import type { Gradable } from '../../shared/courses.ts';
import type { ItemRow, PackageListing, PackageSummary, Tree } from '../../shared/types.ts';
import { db, write } from '../db/client.ts';
import { items, packages } from '../db/schema.ts';
import { enqueue } from '../jobs/queue.ts';

type PackageRow = typeof packages.$inferSelect;

const listing = (row: Omit<PackageRow, 'tree'>): PackageListing => ({
  id: row.id,
  name: row.name,
  bytes: row.bytes,
  broughtAt: row.broughtAt,
  cameBy: row.cameBy,
  state: row.state,
  summary: row.summary ? (JSON.parse(row.summary) as PackageSummary) : null,
  failure: row.failure ? speak(JSON.parse(row.failure) as Finding) : null,
});

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
};

/** Every package somebody brought, newest first; those of looks into courses only where asked for. */
export async function listPackages(limit = 500, { all = false } = {}): Promise<PackageListing[]> {
  const rows = await db
    .select(LISTED)
    .from(packages)
    .where(all ? undefined : eq(packages.cameBy, 'file'))
    .orderBy(desc(packages.broughtAt))
    .limit(limit);
  return rows.map(listing);
}

/** Brings stored bytes in as a package; the same bytes are the same package. */
export async function bringIn(
  name: string,
  stored: { sha256: string; bytes: number },
  cameBy: 'file' | 'made' = 'file',
): Promise<{ package: PackageListing; known: boolean }> {
  const id = randomUUID();
  const row = {
    id,
    ...stored,
    name,
    broughtAt: Date.now(),
    state: 'reading' as const,
    cameBy,
  };
  const known = await write(async (tx) => {
    const [had] = await tx.select(LISTED).from(packages).where(eq(packages.sha256, stored.sha256));
    if (!had) await tx.insert(packages).values(row);
    // What was made here and is brought by a person is a file of theirs from now on.
    else if (had.cameBy === 'made' && cameBy === 'file')
      await tx.update(packages).set({ cameBy, name }).where(eq(packages.id, had.id));
    return had ?? null;
  });
  if (known) return { package: listing(known), known: true };
  await enqueue('read', id);
  return { package: listing({ ...row, summary: null, failure: null }), known: false };
}

/** A package is read once more, as it is now understood; until then it is not shown. */
export async function readAgain(id: string): Promise<void> {
  await write((tx) => tx.update(packages).set({ state: 'reading' }).where(eq(packages.id, id)));
  await enqueue('read', id);
}

export async function packageById(
  id: string,
): Promise<(PackageListing & { sha256: string; tree: Tree | null }) | null> {
  const [row] = await db.select().from(packages).where(eq(packages.id, id));
  if (!row) return null;
  // A package that is being read again is not shown half.
  const tree =
    row.state === 'ready' && row.tree ? { ...NO_RUBRICS, ...(JSON.parse(row.tree) as Tree) } : null;
  return { ...listing(row), sha256: row.sha256, tree };
}

/** Trees that were read before rubrics were. */
const NO_RUBRICS: Pick<Tree, 'rubrics'> = { rubrics: [] };

/** What the list in the reading room shows, for every item of a package. */
/** Kinds that a person has to read to mark them. */
const BY_HAND = new Set(['essay', 'upload', 'drawing', 'media']);

/** What lists of what rubrics grade call an item. */
export const rowName = (r: { readonly id: string; readonly title: string; readonly stem: string }): string =>
  (r.title || r.stem || r.id).slice(0, 120);

/** Items of a package that are graded by hand. */
export async function gradableItems(packageId: string): Promise<Gradable[]> {
  const rows = await db
    .select({
      id: items.nodeId,
      title: items.title,
      stem: items.stem,
      kinds: items.kinds,
      points: items.points,
    })
    .from(items)
    .where(eq(items.packageId, packageId))
    .orderBy(asc(items.seq));
  return rows
    .filter((r) => BY_HAND.has(r.kinds))
    .map(({ id, title, stem, points }) => ({ kind: 'item', id, name: rowName({ id, title, stem }), points }));
}

export async function itemRows(packageId: string, tree: Tree): Promise<ItemRow[]> {
  const rows = await db
    .select({
      seq: items.seq,
      id: items.nodeId,
      title: items.title,
      stem: items.stem,
      kind: items.kinds,
      points: items.points,
    })
    .from(items)
    .where(eq(items.packageId, packageId))
    .orderBy(asc(items.seq));
  const trouble = new Map<string, string>();
  for (const found of tree.findings) {
    if (found.where.node && found.severity !== 'note' && !trouble.has(found.where.node))
      trouble.set(found.where.node, speak(found).message);
  }
  return rows.map(({ seq, id, title, stem, kind, points }) => ({
    seq,
    id,
    name: (stem || title || id).slice(0, 160),
    kind,
    points,
    trouble: trouble.get(id) ?? null,
  }));
}

export async function itemAt(packageId: string, seq: number): Promise<Item | null> {
  const [row] = await db
    .select({ json: items.json })
    .from(items)
    .where(and(eq(items.packageId, packageId), eq(items.seq, seq)));
  return row ? (JSON.parse(row.json) as Item) : null;
}

/** Every item of a package, in order, read in batches so that large ones do not stand in memory twice. */
export async function allItems(packageId: string, batch = 1000): Promise<Item[]> {
  const out: Item[] = [];
  for (let from = 0; ; from += batch) {
    const rows = await db
      .select({ json: items.json })
      .from(items)
      .where(and(eq(items.packageId, packageId), gte(items.seq, from), lt(items.seq, from + batch)))
      .orderBy(asc(items.seq));
    out.push(...rows.map((r) => JSON.parse(r.json) as Item));
    if (rows.length < batch) return out;
  }
}

export interface SearchHit {
  readonly packageId: string;
  readonly packageName: string;
  readonly seq: number;
  readonly name: string;
  readonly kind: string;
}

/** Finds items by words or beginnings of words, accents aside; packages by any part of their name or title. */
export async function search(
  query: string,
  limit = 50,
): Promise<{ items: SearchHit[]; packages: PackageListing[] }> {
  const words = query.normalize('NFC').match(/[\p{L}\p{N}]+/gu) ?? [];
  if (words.length === 0) return { items: [], packages: [] };
  const match = words.map((w) => `"${w}"*`).join(' ');
  const found = await db.all<{
    packageId: string;
    packageName: string;
    seq: number;
    title: string;
    stem: string;
    kind: string;
    fingerprint: string;
  }>(sql`
    SELECT i.package_id AS packageId, p.name AS packageName, i.seq AS seq, i.title AS title, i.stem AS stem, i.kinds AS kind, i.fingerprint AS fingerprint
    FROM items_search s JOIN items i ON i.rowid = s.rowid JOIN packages p ON p.id = i.package_id
    WHERE items_search MATCH ${match} AND p.state = 'ready' ORDER BY p.came_by = 'course', rank LIMIT ${limit * 4}`);
  // The same question stands in every look into a course: once is enough.
  const seen = new Set<string>();
  const distinct = found.filter((f) => !seen.has(f.fingerprint) && seen.add(f.fingerprint)).slice(0, limit);
  const wanted = words.map((w) => w.toLowerCase());
  const named = (await listPackages()).filter((p) => {
    const text = `${p.name} ${p.summary?.title ?? ''}`.toLowerCase();
    return wanted.every((w) => text.includes(w));
  });
  return {
    items: distinct.map(({ packageId, packageName, seq, kind, stem, title }) => ({
      packageId,
      packageName,
      seq,
      kind,
      name: (stem || title).slice(0, 160),
    })),
    packages: named,
  };
}
