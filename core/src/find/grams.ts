import { fold } from './rank.ts';

/**
 * Words of texts for an index. Scripts written without blanks have no words to look up, so what they say is
 * indexed by pairs of characters: a longer text holds all the pairs of a shorter one that is part of it.
 */

/** Scripts without blanks between words. */
const UNSPACED =
  /[\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}\p{sc=Thai}\p{sc=Lao}\p{sc=Khmer}\p{sc=Myanmar}\u30fc]+/gu;

/** The longest word that is told apart from others, in characters; what is longer is cut. */
const LONGEST = 40;

export interface IndexWords {
  /** As people type them, folded. */
  readonly words: readonly string[];
  /** Pairs of characters of what has no blanks, and the last character alone. */
  readonly pairs: readonly string[];
}

const pairsOf = (run: string): string[] => {
  const chars = [...run];
  return chars.map((c, at) => c + (chars[at + 1] ?? ''));
};

/** What a text is found by, in its order, each as often as it stands there. */
export function indexWords(text: string): IndexWords {
  const words: string[] = [];
  const pairs: string[] = [];
  for (const part of fold(text).split(' ')) {
    if (part === '') continue;
    let at = 0;
    for (const run of part.matchAll(UNSPACED)) {
      if (run.index > at) words.push(part.slice(at, Math.min(run.index, at + LONGEST)));
      pairs.push(...pairsOf(run[0]));
      at = run.index + run[0].length;
    }
    if (at < part.length) words.push(part.slice(at, at + LONGEST));
  }
  return { words, pairs };
}

/** What an index has to hold for a text to be in it: of pairs, all but the last character alone. */
export function wantedWords(query: string): IndexWords {
  const { words, pairs } = indexWords(query);
  const whole = pairs.filter((p) => [...p].length > 1);
  return { words, pairs: whole.length > 0 ? whole : pairs };
}

/** The pairs of letters of a word, its beginning and end told apart: likeness of words is what they share. */
export function wordGrams(word: string): string[] {
  const chars = ['1', ...word, '2'];
  return [...new Set(chars.slice(1).map((c, at) => chars[at]! + c))];
}
