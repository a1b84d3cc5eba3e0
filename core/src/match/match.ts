import type { Item } from '../model/holding.ts';
import { fingerprint, wordsOf } from './canonical.ts';

export type MatchedBy = 'identifier' | 'fingerprint' | 'similarity';

interface ItemPair {
  readonly source: Item;
  readonly arrived: Item;
  readonly by: MatchedBy;
  /** 1 where the content is the same; else the share of common word pairs (Jaccard index). */
  readonly similarity: number;
}

export interface Matching {
  readonly pairs: readonly ItemPair[];
  readonly missing: readonly Item[];
  readonly extra: readonly Item[];
}

export interface MatchOptions {
  /** Least similarity for two items of different identifiers to be taken as one. */
  readonly threshold?: number;
  /**
   * Shingles in more items than this tell nothing and are passed over, so that the work stays near linear.
   */
  readonly maxPosting?: number;
}

interface Known {
  readonly item: Item;
  readonly print: string;
  readonly shingles: ReadonlySet<string>;
}

/** Below this, the same identifier on different content is taken as a coincidence of numbering. */
const SAME_ID_FLOOR = 0.15;
const CANDIDATES = 8;

/** Pairs the items of two holdings one to one: by identifier, then by fingerprint, then by similarity. */
export function matchItems(
  source: readonly Item[],
  arrived: readonly Item[],
  options: MatchOptions = {},
): Matching {
  const { threshold = 0.4, maxPosting = 400 } = options;
  const left = source.map(know);
  const right = arrived.map(know);
  const pairs: ItemPair[] = [];
  const takenLeft = new Set<Known>();
  const takenRight = new Set<Known>();
  const pair = (a: Known, b: Known, by: MatchedBy, similarity: number): void => {
    takenLeft.add(a);
    takenRight.add(b);
    pairs.push({ source: a.item, arrived: b.item, by, similarity });
  };

  const byId = new Map(right.map((b) => [b.item.id, b]));
  const prints = group(right);
  const leftPrints = group(left);
  for (const a of left) {
    const b = byId.get(a.item.id);
    if (!b) continue;
    if (a.print === b.print) pair(a, b, 'identifier', 1);
    else {
      // The same number on another item: believe the content where both have a better partner.
      const elsewhere = prints.has(a.print) || leftPrints.has(b.print);
      const similarity = jaccard(a.shingles, b.shingles);
      const sameTitle = a.item.title !== '' && a.item.title === b.item.title;
      if (!elsewhere && (similarity >= SAME_ID_FLOOR || sameTitle)) pair(a, b, 'identifier', similarity);
    }
  }
  for (const a of left) {
    if (takenLeft.has(a)) continue;
    const b = prints.get(a.print)?.find((k) => !takenRight.has(k));
    if (b) pair(a, b, 'fingerprint', 1);
  }
  const rest = right.filter((b) => !takenRight.has(b));
  for (const { a, b, similarity } of assign(
    left.filter((a) => !takenLeft.has(a)),
    rest,
    threshold,
    maxPosting,
  )) {
    pair(a, b, 'similarity', similarity);
  }
  const order = new Map(source.map((item, at) => [item, at]));
  pairs.sort((x, y) => order.get(x.source)! - order.get(y.source)!);
  return {
    pairs,
    missing: left.filter((a) => !takenLeft.has(a)).map((a) => a.item),
    extra: right.filter((b) => !takenRight.has(b)).map((b) => b.item),
  };
}

function know(item: Item): Known {
  let shingles: ReadonlySet<string> | null = null;
  return {
    item,
    print: fingerprint(item),
    get shingles() {
      return (shingles ??= shinglesOf(item));
    },
  };
}

function group(known: readonly Known[]): Map<string, Known[]> {
  const groups = new Map<string, Known[]>();
  for (const k of known) {
    const list = groups.get(k.print);
    if (list) list.push(k);
    else groups.set(k.print, [k]);
  }
  return groups;
}

/** Pairs of neighbouring words, and the words themselves for very short items. */
function shinglesOf(item: Pick<Item, 'body'>): Set<string> {
  const words = wordsOf(item);
  const out = new Set<string>();
  for (let at = 0; at + 1 < words.length; at++) out.add(`${words[at]} ${words[at + 1]}`);
  if (words.length < 4) for (const word of words) out.add(word);
  return out;
}

export function jaccard(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  if (a.size === 0 && b.size === 0) return 1;
  let common = 0;
  for (const shingle of a) if (b.has(shingle)) common += 1;
  return common / (a.size + b.size - common);
}

/**
 * The most similar first, each item used once. An index of shingles keeps the number of comparisons small.
 */
function assign(left: readonly Known[], right: readonly Known[], threshold: number, maxPosting: number) {
  const index = new Map<string, number[]>();
  right.forEach((b, at) => {
    for (const shingle of b.shingles) {
      const list = index.get(shingle);
      if (list) list.push(at);
      else index.set(shingle, [at]);
    }
  });
  const options: { a: Known; b: Known; similarity: number; at: number; to: number }[] = [];
  left.forEach((a, at) => {
    const hits = new Map<number, number>();
    for (const shingle of a.shingles) {
      const list = index.get(shingle);
      if (!list || list.length > maxPosting) continue;
      for (const to of list) hits.set(to, (hits.get(to) ?? 0) + 1);
    }
    const likely = [...hits].sort((x, y) => y[1] - x[1] || x[0] - y[0]).slice(0, CANDIDATES);
    for (const [to] of likely) {
      const b = right[to]!;
      const similarity = jaccard(a.shingles, b.shingles);
      if (similarity >= threshold) options.push({ a, b, similarity, at, to });
    }
  });
  options.sort((x, y) => y.similarity - x.similarity || x.at - y.at || x.to - y.to);
  const usedA = new Set<Known>();
  const usedB = new Set<Known>();
  return options.filter(({ a, b }) => {
    if (usedA.has(a) || usedB.has(b)) return false;
    usedA.add(a);
    usedB.add(b);
    return true;
  });
}
