import { sql, type SQL } from 'drizzle-orm';
import { db } from './database.ts';
import { lineName } from './items.ts';
import { matchOf } from './searchWords.ts';

/** An item as it was found: once, however many packages hold it. */
export interface ItemHit {
  readonly packageId: string;
  readonly packageName: string;
  readonly seq: number;
  readonly name: string;
  readonly kind: string;
  readonly key: string;
  readonly points: number;
  /** Packages and looks into courses that hold it. */
  readonly packages: number;
}

// CROSS JOIN keeps the order of the joins (SQLite, "Query Planner", 2): first what the words find, and only
// then where it stands. The other way round every item of a package is looked for in the index: minutes.

/** How many rows are looked through for each hit that is wanted: the same item stands in many packages. */
const ROWS_PER_HIT = 6;

interface Found {
  readonly packageId: string;
  readonly packageName: string;
  readonly seq: number;
  readonly title: string;
  readonly stem: string;
  readonly kind: string;
  readonly key: string;
  readonly points: number;
  readonly fingerprint: string;
}

/**
 * Items by words of their text, choices, key, category, files, in any order and any part of them, spelling
 * and accents forgiven; the same item once, packages that came as files first.
 */
export async function searchItems(query: string, limit: number): Promise<ItemHit[]> {
  const match = await matchOf(query);
  if (match === null) return [];
  const found = await db.all<Found>(sql`
    SELECT p.id AS packageId, p.name AS packageName, i.seq AS seq, i.title AS title, i.stem AS stem,
      i.kinds AS kind, i.key_text AS key, i.points AS points, i.fingerprint AS fingerprint
    FROM items_search s CROSS JOIN items i ON i.rowid = s.rowid CROSS JOIN packages p ON p.reading_id = i.reading_id
    WHERE items_search MATCH ${match} AND p.state = 'ready' AND p.thrown_at IS NULL
    ORDER BY p.came_by = 'course', rank LIMIT ${limit * ROWS_PER_HIT}`);
  const seen = new Set<string>();
  const once = found.filter((f) => !seen.has(f.fingerprint) && seen.add(f.fingerprint)).slice(0, limit);
  const held = await holders(once.map((f) => f.fingerprint));
  return once.map(({ stem, title, fingerprint, ...hit }) => ({
    ...hit,
    name: lineName({ stem, title }),
    packages: held.get(fingerprint) ?? 1,
  }));
}

async function holders(fingerprints: readonly string[]): Promise<Map<string, number>> {
  if (fingerprints.length === 0) return new Map();
  const rows = await db.all<{ fingerprint: string; packages: number }>(sql`
    SELECT i.fingerprint AS fingerprint, count(DISTINCT p.id) AS packages
    FROM items i JOIN packages p ON p.reading_id = i.reading_id
    WHERE i.fingerprint IN (${listed(fingerprints)}) AND p.thrown_at IS NULL GROUP BY i.fingerprint`);
  return new Map(rows.map((r) => [r.fingerprint, r.packages]));
}

const listed = (values: readonly string[]): SQL =>
  sql.join(
    values.map((v) => sql`${v}`),
    sql`, `,
  );

/**
 * Places in a package of the items that a query finds.
 * @param key words of what is right alone
 */
export async function placesFound(readingId: string, query: string, key: string): Promise<Set<number>> {
  const [all, keyed] = await Promise.all([matchOf(query), matchOf(key)]);
  const asked = [all === null ? null : `(${all})`, keyed === null ? null : `{keyed} : (${keyed})`];
  const match = asked.filter((m) => m !== null).join(' AND ');
  if (match === '') return new Set();
  const rows = await db.all<{ seq: number }>(sql`
    SELECT i.seq AS seq FROM items_search s CROSS JOIN items i ON i.rowid = s.rowid
    WHERE items_search MATCH ${match} AND i.reading_id = ${readingId}`);
  return new Set(rows.map((r) => r.seq));
}
