import { fingerprint } from '../match/canonical.ts';
import { jaccard, shinglesOf } from '../match/match.ts';
import type { Holding, Item } from '../model/holding.ts';
import { nameOf } from '../model/visit.ts';
import type { Check } from './check.ts';

/** Two items that ask the same in the same words, anywhere in the package. */
export const duplicateItems: Check = {
  code: 'duplicate-items',
  severity: 'warning',
  whole: ({ items }) => {
    const first = new Map<string, Item>();
    return items.flatMap((item) => {
      if (shinglesOf(item).size === 0) return [];
      const print = fingerprint(item);
      const had = first.get(print);
      if (!had) first.set(print, item);
      return had ? [{ node: item.id, path: item.origin?.path ?? null, params: { other: nameOf(had) } }] : [];
    });
  },
};

const LIKE = 0.8;
/** Smallest hashes kept of each item, and how many items may share one before it tells nothing. */
const SKETCH = 6;
const CROWD = 30;

/** Two items that share most of their wording, and are not the same. */
export const nearDuplicateItems: Check = {
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
  readonly print: string;
  readonly shingles: ReadonlySet<string>;
}

/** Items that share one of their smallest shingle hashes are compared (MinHash, Broder 1997); the rest are too unlike. */
function likePairs({ items }: Holding): { item: Item; other: Item; like: number }[] {
  const buckets = new Map<number, Sketched[]>();
  const found: { item: Item; other: Item; like: number }[] = [];
  for (const item of items) {
    const known: Sketched = { item, print: fingerprint(item), shingles: shinglesOf(item) };
    if (known.shingles.size < 6) continue;
    const hashes = [...known.shingles].map(hash).sort((a, b) => a - b).slice(0, SKETCH);
    const candidates = new Set(hashes.flatMap((h) => (buckets.get(h) ?? []).slice(0, CROWD)));
    let best: { other: Item; like: number } | null = null;
    for (const other of candidates) {
      if (other.print === known.print) continue;
      const like = jaccard(known.shingles, other.shingles);
      if (like >= LIKE && like > (best?.like ?? 0)) best = { other: other.item, like };
    }
    if (best) found.push({ item, ...best });
    for (const h of hashes) buckets.set(h, [...(buckets.get(h) ?? []), known].slice(-CROWD));
  }
  return found;
} // prettier-ignore

/** FNV-1a (common practice). */
function hash(text: string): number {
  let h = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) h = Math.imul(h ^ text.charCodeAt(at), 0x01000193);
  return h >>> 0;
}
