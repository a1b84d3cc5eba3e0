import type { Item } from '../model/holding.ts';
import { composed } from '../model/composed.ts';
import { fingerprint } from './asked.ts';
import { featuresOf, jaccard, likeness, stemLikeness, type Features } from './likeness.ts';
import { pairTwins } from './twins.ts';

export type MatchedBy = 'identifier' | 'fingerprint' | 'similarity';

interface ItemPair {
  readonly source: Item;
  readonly arrived: Item;
  readonly by: MatchedBy;
  /** 1 where the content is the same; else how alike the two are (see likeness.ts). */
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
  /** Its place among all items of its side. */
  readonly at: number;
  readonly print: string;
  readonly features: Features;
}

/** Below this, the same identifier on different content is taken as a coincidence of numbering. */
const SAME_ID_FLOOR = 0.15;
/** Above this, what two items left over in the same place ask is taken as one. */
const IN_PLACE_FLOOR = 0.4;
const CANDIDATES = 8;

/** Pairs the items of two holdings one to one: by identifier, then by fingerprint, then by similarity. */
export function matchItems(
  source: readonly Item[],
  arrived: readonly Item[],
  options: MatchOptions = {},
): Matching {
  const { threshold = 0.4, maxPosting = 400 } = options;
  const left = knowAll(source);
  const right = knowAll(arrived);
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
    const alone = prints.get(a.print)?.length === 1 && leftPrints.get(a.print)!.length === 1;
    if (a.print === b.print && alone) pair(a, b, 'identifier', 1);
    else if (a.print !== b.print) {
      // The same number on another item: believe the content where both have a better partner.
      const elsewhere = prints.has(a.print) || leftPrints.has(b.print);
      const words = jaccard(a.features.shingles, b.features.shingles);
      const similarity = likeness(a.features, b.features);
      if (!elsewhere && (words >= SAME_ID_FLOOR || sameTitle(a, b) || similarity >= threshold))
        pair(a, b, 'identifier', Math.max(words, similarity));
    }
  }
  for (const [print, group] of leftPrints) {
    const mine = group.filter((a) => !takenLeft.has(a));
    const theirs = (prints.get(print) ?? []).filter((b) => !takenRight.has(b));
    // One on either side are each other's, whatever else is said of them.
    const alone = mine.length === 1 && theirs.length === 1;
    for (const [a, b] of alone ? [[mine[0]!, theirs[0]!] as const] : pairTwins(mine, theirs))
      pair(a, b, a.item.id === b.item.id ? 'identifier' : 'fingerprint', 1);
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
  // Of the same title, which no other item has, half the likeness is enough.
  for (const [a, b] of sameTitles(left, right, takenLeft, takenRight))
    if (stemLikeness(a.item, b.item) >= IN_PLACE_FLOOR / 2)
      pair(a, b, 'similarity', likeness(a.features, b.features));
  const partner = new Map(pairs.map((p) => [p.source, p.arrived]));
  // Between the same two neighbours, the same title or a little likeness is enough.
  for (const [a, b] of between(left, right, takenLeft, takenRight, partner)) {
    if (!sameTitle(a, b) && stemLikeness(a.item, b.item) < IN_PLACE_FLOOR) continue;
    pair(a, b, 'similarity', likeness(a.features, b.features));
  }
  const at = new Map(source.map((item, n) => [item, n]));
  pairs.sort((x, y) => at.get(x.source)! - at.get(y.source)!);
  return {
    pairs,
    missing: left.filter((a) => !takenLeft.has(a)).map((a) => a.item),
    extra: right.filter((b) => !takenRight.has(b)).map((b) => b.item),
  };
}

/** A title that several items of one side share tells nothing of any of them. */
function knowAll(items: readonly Item[]): Known[] {
  const titles = new Map<string, number>();
  for (const { title } of items) titles.set(composed(title), (titles.get(composed(title)) ?? 0) + 1);
  return items.map((item, at) => {
    let features: Features | null = null;
    return {
      item,
      at,
      print: fingerprint(item),
      get features() {
        return (features ??= featuresOf(item, (titles.get(composed(item.title)) ?? 0) < 2));
      },
    };
  });
}

const sameTitle = (a: Known, b: Known): boolean =>
  a.features.title !== '' && a.features.title === b.features.title;

/** Items left over on both sides under a title that no other item of either side has. */
function sameTitles(
  left: readonly Known[],
  right: readonly Known[],
  takenLeft: ReadonlySet<Known>,
  takenRight: ReadonlySet<Known>,
): [Known, Known][] {
  const there = new Map<string, Known>();
  for (const b of right) if (!takenRight.has(b) && b.features.title !== '') there.set(b.features.title, b);
  return left.flatMap((a): [Known, Known][] => {
    const b = takenLeft.has(a) || a.features.title === '' ? undefined : there.get(a.features.title);
    return b ? [[a, b]] : [];
  });
}

/** Items left over on both sides that stand between the same two neighbours, or at the same end. */
function between(
  left: readonly Known[],
  right: readonly Known[],
  takenLeft: ReadonlySet<Known>,
  takenRight: ReadonlySet<Known>,
  partner: ReadonlyMap<Item, Item>,
): [Known, Known][] {
  const after = new Map<Item | null, Known[]>();
  let before: Item | null = null;
  for (const b of right) {
    if (takenRight.has(b)) before = b.item;
    else after.set(before, [...(after.get(before) ?? []), b]);
  }
  const found: [Known, Known][] = [];
  let last: Item | null = null;
  let run = 0;
  for (const a of left) {
    if (takenLeft.has(a)) {
      last = partner.get(a.item) ?? null;
      run = 0;
      continue;
    }
    const b = after.get(last)?.[run++];
    if (b) found.push([a, b]);
  }
  return found;
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

/** What candidates are found by: the wording, and the title. */
const signsOf = ({ features: { shingles, title } }: Known): Iterable<string> =>
  title === '' ? shingles : [...shingles, `title ${title}`];

/**
 * The most similar first, each item used once. An index of shingles keeps the number of comparisons small.
 */
function assign(left: readonly Known[], right: readonly Known[], threshold: number, maxPosting: number) {
  const index = new Map<string, number[]>();
  right.forEach((b, at) => {
    for (const shingle of signsOf(b)) {
      const list = index.get(shingle);
      if (list) list.push(at);
      else index.set(shingle, [at]);
    }
  });
  const options: { a: Known; b: Known; similarity: number; at: number; to: number }[] = [];
  left.forEach((a, at) => {
    const hits = new Map<number, number>();
    for (const shingle of signsOf(a)) {
      const list = index.get(shingle);
      if (!list || list.length > maxPosting) continue;
      for (const to of list) hits.set(to, (hits.get(to) ?? 0) + 1);
    }
    const likely = [...hits].sort((x, y) => y[1] - x[1] || x[0] - y[0]).slice(0, CANDIDATES);
    for (const [to] of likely) {
      const b = right[to]!;
      const similarity = likeness(a.features, b.features);
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
