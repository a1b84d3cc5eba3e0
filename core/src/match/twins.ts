import type { Item } from '../model/holding.ts';
import { composed } from '../model/composed.ts';
import { tidyNumber } from '../model/number.ts';
import { likeness, type Features } from './likeness.ts';

interface Twin {
  readonly item: Item;
  /** Its place among all items of its side. */
  readonly at: number;
  readonly features: Features;
}

/** Beyond so many pairs to weigh, twins left over are taken in their order. */
const MAX_WEIGHED = 2500;

/**
 * Pairs items that ask the same in the same words by what else is the same of them: all of it and the
 * identifier, all of it, the identifier, then whatever is most alike; so that one left out takes none of its
 * twins' places.
 */
export function pairTwins<T extends Twin>(left: readonly T[], right: readonly T[]): [T, T][] {
  const pairs: [T, T][] = [];
  let restLeft = [...left];
  let restRight = [...right];
  const by = (key: (twin: T) => string): void => {
    const there = new Map<string, T[]>();
    for (const b of restRight) there.set(key(b), [...(there.get(key(b)) ?? []), b]);
    const taken = new Set<T>();
    for (const a of restLeft) {
      const b = there.get(key(a))?.shift();
      if (!b) continue;
      pairs.push([a, b]);
      taken.add(a).add(b);
    }
    restLeft = restLeft.filter((a) => !taken.has(a));
    restRight = restRight.filter((b) => !taken.has(b));
  };
  by((t) => `${t.item.id}\u0001${detailOf(t)}`);
  by(detailOf);
  by((t) => t.item.id);
  return [...pairs, ...mostAlike(restLeft, restRight)];
}

/** What is said of an item besides what it asks. */
const detailOf = ({ item, features: { answers, kinds, category } }: Twin): string =>
  JSON.stringify([composed(item.title), category, kinds, tidyNumber(item.points), [...answers].sort()]);

function mostAlike<T extends Twin>(left: readonly T[], right: readonly T[]): [T, T][] {
  if (left.length * right.length > MAX_WEIGHED)
    return left.slice(0, right.length).map((a, at) => [a, right[at]!]);
  const weighed = left.flatMap((a) =>
    right.map((b) => ({ a, b, apart: Math.abs(a.at - b.at), like: likeness(a.features, b.features) })),
  );
  // Of those equally alike, the nearest place.
  weighed.sort((x, y) => y.like - x.like || x.apart - y.apart || x.a.at - y.a.at);
  const taken = new Set<T>();
  return weighed.flatMap(({ a, b }): [T, T][] => {
    if (taken.has(a) || taken.has(b)) return [];
    taken.add(a).add(b);
    return [[a, b]];
  });
}
