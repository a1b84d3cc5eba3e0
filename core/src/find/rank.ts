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

/** Letters that may be wrong in a word as typed; none where it has digits, which are codes and values. */
const slackOf = (word: string): number => (/\d/u.test(word) ? 0 : slack(word.length));

/** Whether two words differ by two neighbours changing places, the commonest slip of all (common practice). */
function swapped(a: string, b: string): boolean {
  if (a.length !== b.length) return false;
  let at = 0;
  while (at < a.length && a[at] === b[at]) at += 1;
  return at < a.length && a.slice(0, at) + a.charAt(at + 1) + a.charAt(at) + a.slice(at + 2) === b;
}

/**
 * How many letters are wrong in a word as typed, held against another or as much of it as was typed; null
 * where more are than may be.
 */
export function misspelt(word: string, other: string): number | null {
  const allowed = slackOf(word);
  let best: number | null = null;
  // A word may be typed only in part.
  for (const part of [
    other,
    other.slice(0, word.length),
    other.slice(0, word.length + 1),
    other.slice(0, word.length - 1),
  ]) {
    const d = swapped(word, part) ? 1 : distance(word, part);
    if (d <= allowed && d < (best ?? Infinity)) best = d;
  }
  return best;
}

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
  if (slackOf(word) === 0) return null;
  const costs = words.flatMap((other) => misspelt(word, other) ?? []);
  return costs.length === 0 ? null : Math.min(...costs);
}
