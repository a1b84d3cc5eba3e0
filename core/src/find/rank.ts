import { distance } from 'fastest-levenshtein';
import { foldName } from '../model/foldName.ts';

/** A text as it is searched: as names are told apart, and letters that are typed otherwise besides. */
export const fold = (text: string): string =>
  foldName(text).replace(/ß/gu, 'ss').replace(/ø/gu, 'o').replace(/ł/gu, 'l');

interface Hit<T> {
  readonly entry: T;
  /** 0 where every word of the query is in it as written; more the more had to be forgiven. */
  readonly forgiven: number;
}

/**
 * Letters of a word that may be wrong: none in short ones, where anything is like anything (common practice).
 */
const slack = (length: number): number => (length >= 8 ? 2 : length >= 4 ? 1 : 0);

/**
 * Finds entries by words in any order: each has to be part of what the entry says, spelling and accents
 * forgiven. What fits as written comes before what had to be forgiven; within each, in the order given.
 */
export function find<T>(entries: readonly T[], query: string, says: (entry: T) => string): Hit<T>[] {
  const wanted = fold(query)
    .split(' ')
    .filter((w) => w !== '');
  if (wanted.length === 0) return entries.map((entry) => ({ entry, forgiven: 0 }));
  const hits = entries.flatMap((entry): Hit<T>[] => {
    const text = fold(says(entry));
    const words = text.split(' ');
    let forgiven = 0;
    for (const word of wanted) {
      const cost = costOf(word, text, words);
      if (cost === null) return [];
      forgiven += cost;
    }
    return [{ entry, forgiven }];
  });
  return hits.sort((a, b) => a.forgiven - b.forgiven);
}

function costOf(word: string, text: string, words: readonly string[]): number | null {
  if (text.includes(word)) return 0;
  // Codes are written with and without their blanks: "NAV201" and "NAV 201".
  if (text.replace(/ /gu, '').includes(word)) return 0;
  const allowed = /\d/u.test(word) ? 0 : slack(word.length);
  if (allowed === 0) return null;
  let best: number | null = null;
  for (const other of words) {
    // A word may be typed only in part: compare with as much of the other as was typed.
    const parts = [
      other,
      other.slice(0, word.length),
      other.slice(0, word.length + 1),
      other.slice(0, word.length - 1),
    ];
    for (const part of parts) {
      const d = distance(word, part);
      if (d <= allowed && d < (best ?? Infinity)) best = d;
    }
  }
  return best;
}
