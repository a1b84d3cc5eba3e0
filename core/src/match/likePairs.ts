import type { Item } from '../model/holding.ts';
import { askedBy, mix, type Asked } from './asked.ts';

/** An item, the earlier one most like it, and the share of word pairs that both have. */
export interface LikePair {
  readonly item: Item;
  readonly other: Item;
  readonly like: number;
}

const LIKE = 0.8;
/** Smallest hashes kept of each item; two items that share three of them are compared. */
const SKETCH = 7;
/** Pairs of words that more than this share of items have tell nothing, once there are enough items. */
const COMMON = 1 / 20;
const ENOUGH = 200;
/** Counters for how many items have a pair of words; two pairs may fall on one. */
const COUNTERS = 1 << 20;
/** Earlier items of a crowd that share the same three hashes, with which one is compared. */
const NEIGHBOURS = 4;
/** Bits of a number that are exact. */
const EXACT = 53;

/**
 * Items that are nearly the same: each with the earlier one it is most like, from four fifths up. Only those
 * that share three of their smallest hashes are compared (MinHash, Broder 1997: two that are alike to four
 * fifths share most of them); three together are shared by chance far more rarely than any one.
 */
export function likePairs(items: readonly Item[], asked: (item: Item) => Asked = askedBy): LikePair[] {
  const all = items.map(asked);
  const hashes = all.map((a) => a.pairs);
  const keys = tripleKeys(hashes);
  const size = 2 ** bitsFor(items.length);
  const compared = new Set<number>();
  const best = new Map<number, { other: number; like: number }>();
  const compare = (at: number, other: number): void => {
    const pair = at * items.length + other;
    if (at === other || compared.has(pair)) return;
    compared.add(pair);
    const like = likeness(hashes[at]!, hashes[other]!);
    if (like < LIKE || like <= (best.get(at)?.like ?? 0)) return;
    if (all[at]!.print !== all[other]!.print) best.set(at, { other, like });
  };
  let from = 0;
  for (let to = 0; to < keys.length; to++) {
    if (Math.floor(keys[to]! / size) !== Math.floor(keys[from]! / size)) from = to;
    for (let before = Math.max(from, to - NEIGHBOURS); before < to; before++)
      compare(keys[to]! % size, keys[before]! % size);
  }
  return [...best]
    .sort(([a], [b]) => a - b)
    .map(([at, { other, like }]) => ({ item: items[at]!, other: items[other]!, like }));
}

const bitsFor = (count: number): number => Math.max(1, 32 - Math.clz32(count));

/** For each item and each three of its smallest hashes one number: their hash, then the item's place; sorted. */
function tripleKeys(hashes: readonly Uint32Array[]): Float64Array {
  const common = commonIn(hashes);
  const bits = bitsFor(hashes.length);
  const size = 2 ** bits;
  const low = 2 ** Math.max(0, EXACT - 32 - bits);
  const keys = new Float64Array((hashes.length * SKETCH * (SKETCH - 1) * (SKETCH - 2)) / 6);
  let used = 0;
  hashes.forEach((all, at) => {
    const sketch: number[] = [];
    for (const h of all) if (sketch.length < SKETCH && !common(h)) sketch.push(h);
    for (let i = 0; i < sketch.length; i++)
      for (let j = i + 1; j < sketch.length; j++)
        for (let k = j + 1; k < sketch.length; k++) {
          const a = mix(mix(mix(0x9e3779b9, sketch[i]!), sketch[j]!), sketch[k]!);
          const b = mix(a, 0x85ebca6b) % low;
          keys[used++] = (a * low + b) * size + at;
        }
  });
  return keys.subarray(0, used).sort();
}

/** Which pairs of words too many items have. */
function commonIn(hashes: readonly Uint32Array[]): (hash: number) => boolean {
  if (hashes.length < ENOUGH) return () => false;
  const counts = new Uint32Array(COUNTERS);
  for (const all of hashes) for (const h of all) counts[h % COUNTERS]! += 1;
  const most = hashes.length * COMMON;
  return (hash) => counts[hash % COUNTERS]! > most;
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
