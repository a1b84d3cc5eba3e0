import { familiesOf } from '../families/families.ts';
import { fingerprint } from '../match/asked.ts';
import { likePairs } from '../match/likePairs.ts';
import type { Item } from '../model/holding.ts';

/** Items of a bank that ask the same, or nearly: the first of them stays where the others go. */
export interface LikeGroup {
  /** `same` in the same words, `near` in nearly the same. */
  readonly because: 'same' | 'near';
  /** Ids, in the order of the bank; at least two. */
  readonly items: readonly string[];
}

/** Duplicates within a bank; replicas of one exercise are meant to be alike. */
export function likeWithin(items: readonly Item[]): LikeGroup[] {
  const same = new Map<string, string[]>();
  for (const item of items) {
    const print = fingerprint(item);
    same.set(print, [...(same.get(print) ?? []), item.id]);
  }
  const family = new Map(
    familiesOf({ items, quizzes: [] }).flatMap((f) => f.items.map((i) => [i.id, f.id] as const)),
  );
  const near = likePairs(items).filter(
    ({ item, other }) => family.get(item.id) === undefined || family.get(item.id) !== family.get(other.id),
  );
  return [
    ...[...same.values()]
      .filter((g) => g.length > 1)
      .map((group): LikeGroup => ({ because: 'same', items: group })),
    ...near.map(({ item, other }): LikeGroup => ({ because: 'near', items: [other.id, item.id] })),
  ];
}
