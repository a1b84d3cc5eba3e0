import { misspelt, wantedWords, wordGrams } from '@alforja/core';
import { sql } from 'drizzle-orm';
import { db, type Transaction } from './database.ts';
import { searchWords } from './schema.ts';

/**
 * The words that items are found by. A word that is looked for stands for all that begin with it, those it is
 * part of, and, where there are none, those it may be a misspelling of.
 */

/** Shorter words are found by their beginning only: as part of others they would be anywhere. */
const SHORTEST_PART = 3;
/** Words that one word may stand for, and how many are looked through for them. */
const MOST_PARTS = 60;
const MOST_LIKE = 12;
const LOOKED_THROUGH = 300;
/** Rows that one statement puts in. */
const ROWS = 500;

/** Only letters: what has digits is a code or a value, and never meant otherwise than typed. */
const SPELT = /^\p{L}{3,40}$/u;

/** Notes the words of texts as they are indexed. */
export async function noteWords(tx: Transaction, texts: readonly string[]): Promise<void> {
  const words = [...new Set(texts.flatMap((t) => t.split(' ')))].filter((w) => SPELT.test(w));
  for (let at = 0; at < words.length; at += ROWS) {
    const rows = words.slice(at, at + ROWS).map((word) => ({ word, grams: wordGrams(word).join(' ') }));
    await tx.insert(searchWords).values(rows).onConflictDoNothing();
  }
}

const quoted = (word: string): string => `"${word}"`;

async function withGrams(grams: readonly string[], join: 'AND' | 'OR', limit: number): Promise<string[]> {
  const match = grams.map(quoted).join(` ${join} `);
  // Without positions the index ranks by how many of the pairs a word has, shorter words first.
  const order = join === 'OR' ? sql`ORDER BY rank` : sql``;
  const rows = await db.all<{ word: string }>(
    sql`SELECT w.word AS word FROM search_grams g JOIN search_words w ON w.rowid = g.rowid
        WHERE search_grams MATCH ${match} ${order} LIMIT ${limit}`,
  );
  return rows.map((r) => r.word);
}

async function begins(word: string): Promise<boolean> {
  const rows = await db.all(
    sql`SELECT 1 FROM search_words WHERE word >= ${word} AND word < ${`${word}\u{10ffff}`} LIMIT 1`,
  );
  return rows.length > 0;
}

/** Words that hold another within them. */
async function holding(word: string): Promise<string[]> {
  const chars = [...word];
  if (chars.length < SHORTEST_PART) return [];
  const inner = chars.slice(1).map((c, at) => chars[at]! + c);
  const found = await withGrams(inner, 'AND', LOOKED_THROUGH);
  return found.filter((w) => w.includes(word) && !w.startsWith(word)).slice(0, MOST_PARTS);
}

/** Words that another may be a misspelling of, the nearest first. */
async function like(word: string): Promise<string[]> {
  const found = await withGrams(wordGrams(word), 'OR', LOOKED_THROUGH);
  return found
    .flatMap((w) => {
      const cost = misspelt(word, w);
      return cost === null ? [] : [{ w, cost }];
    })
    .sort((a, b) => a.cost - b.cost)
    .slice(0, MOST_LIKE)
    .map(({ w }) => w);
}

/**
 * What the index is asked for: every word of a query, each in any of the forms it stands for.
 * @returns an FTS5 expression (SQLite, "FTS5 Extension", 3); null where the query has no words
 */
export async function matchOf(query: string): Promise<string | null> {
  const { words, pairs } = wantedWords(query);
  const asked = await Promise.all(
    words.map(async (word) => {
      const parts = await holding(word);
      const others = parts.length > 0 || (await begins(word)) ? parts : await like(word);
      return `(${[`${quoted(word)}*`, ...others.map(quoted)].join(' OR ')})`;
    }),
  );
  const all = [...asked, ...pairs.map((p) => `${quoted(p)}*`)];
  return all.length === 0 ? null : all.join(' AND ');
}
