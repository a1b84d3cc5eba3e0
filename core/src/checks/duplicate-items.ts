import { fingerprint, wordsOf } from '../match/canonical.ts';
import type { Holding, Item } from '../model/holding.ts';
import { nameOf, stemText } from '../model/plainText.ts';
import type { Check } from './check.ts';

/** Two items that ask the same in the same words, anywhere in the package. */
export const duplicateItems: Check<'duplicate-items'> = {
  code: 'duplicate-items',
  severity: 'warning',
  whole: ({ items }) => {
    const first = new Map<string, Item>();
    return items.flatMap((item) => {
      if (stemText(item) === '') return [];
      const print = fingerprint(item);
      const had = first.get(print);
      if (!had) first.set(print, item);
      return had ? [{ node: item.id, path: item.origin?.path ?? null, params: { other: nameOf(had) } }] : [];
    });
  },
};

const LIKE = 0.8;
/**
 * Smallest hashes kept of each item, how many two items must share, and how many items may share one before
 * it tells nothing.
 */
const SKETCH = 6;
const SHARED = 3;
const CROWD = 200;

/** Two items that share most of their wording, and are not the same. */
export const nearDuplicateItems: Check<'near-duplicate-items'> = {
  code: 'near-duplicate-items',
  severity: 'note',
  whole: (holding) =>
    likePairs(holding).map(({ item, other, like }) => ({
      node: item.id,
      path: item.origin?.path ?? null,
      params: { other: nameOf(other), percent: Math.round(100 * like) },
    })),
};

interface Sketched {
  readonly item: Item;
  /** Hashes of all shingles, in order. */
  readonly hashes: Uint32Array;
}

/**
 * Items that share several of their smallest shingle hashes are compared (MinHash, Broder 1997: two that are
 * alike to four fifths share most of them); the rest are too unlike.
 */
function likePairs({ items }: Holding): { item: Item; other: Item; like: number }[] {
  const known: Sketched[] = [];
  const buckets = new Map<number, number[]>();
  const found: { item: Item; other: Item; like: number }[] = [];
  // How many hashes each earlier item shares with the one at hand, and which share any.
  const shared = new Uint8Array(items.length);
  const sharing: number[] = [];
  for (const item of items) {
    const hashes = hashesOf(item);
    if (hashes.length < SKETCH) continue;
    for (const h of hashes.subarray(0, SKETCH))
      for (const at of buckets.get(h) ?? []) if (shared[at]!++ === 0) sharing.push(at);
    let best: { other: Item; like: number } | null = null;
    for (const at of sharing) {
      const [other, count] = [known[at]!, shared[at]!];
      shared[at] = 0;
      if (count < SHARED) continue;
      const like = likeness(hashes, other.hashes);
      if (like < LIKE || like <= (best?.like ?? 0)) continue;
      if (fingerprint(item) !== fingerprint(other.item)) best = { other: other.item, like };
    }
    sharing.length = 0;
    if (best) found.push({ item, ...best });
    known.push({ item, hashes });
    for (const h of hashes.subarray(0, SKETCH)) {
      const bucket = buckets.get(h);
      if (!bucket) buckets.set(h, [known.length - 1]);
      else if (bucket.length < CROWD) bucket.push(known.length - 1);
    }
  }
  return found;
}

/** Hashes of the pairs of neighbouring words of an item, each once, in order. */
function hashesOf(item: Item): Uint32Array {
  const words = wordsOf(item).map(hash);
  const pairs = new Set<number>();
  for (let at = 0; at + 1 < words.length; at++)
    pairs.add((Math.imul(words[at]!, 0x01000193) ^ words[at + 1]!) >>> 0);
  return Uint32Array.from(pairs).sort();
}

/** Jaccard index of two ordered lists. */
function likeness(a: Uint32Array, b: Uint32Array): number {
  let common = 0;
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    if (a[i] === b[j]) {
      common += 1;
      i += 1;
      j += 1;
    } else if (a[i]! < b[j]!) i += 1;
    else j += 1;
  }
  return common / (a.length + b.length - common);
}

/** FNV-1a (common practice). */
function hash(text: string): number {
  let h = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) h = Math.imul(h ^ text.charCodeAt(at), 0x01000193);
  return h >>> 0;
}
