import { familiesOf } from '../families/families.ts';
import type { Item } from '../model/holding.ts';
import { nameOf } from '../model/plainText.ts';
import { likePairs } from '../match/likePairs.ts';
import type { Check } from './check.ts';

/** Two items that ask the same in the same words, anywhere in the package. */
export const duplicateItems: Check<'duplicate-items'> = {
  code: 'duplicate-items',
  severity: 'warning',
  whole: ({ items }, asked) => {
    const first = new Map<string, Item>();
    return items.flatMap((item) => {
      const { print, says } = asked(item);
      if (!says) return [];
      const had = first.get(print);
      if (!had) first.set(print, item);
      return had ? [{ node: item.id, path: item.origin?.path ?? null, params: { other: nameOf(had) } }] : [];
    });
  },
};

/** Two items that share most of their wording, and are not the same. */
export const nearDuplicateItems: Check<'near-duplicate-items'> = {
  code: 'near-duplicate-items',
  severity: 'note',
  whole: (holding, asked) => {
    const of = new Map(familiesOf(holding).flatMap((f) => f.items.map((i) => [i, f] as const)));
    // Replicas, and parts of one question, are meant to be alike.
    const meant = (a: Item, b: Item): boolean =>
      partsOfOne(a.title, b.title) || (of.has(a) && of.get(a) === of.get(b));
    return likePairs(holding.items, asked)
      .filter(({ item, other }) => !meant(item, other))
      .map(({ item, other, like }) => ({
        node: item.id,
        path: item.origin?.path ?? null,
        params: { other: nameOf(other), percent: Math.round(100 * like) },
      }));
  },
};

const NUMBERED = /^(.*) \(\d+\/(\d+)\)$/su;

/** "Lights (1/3)" and "Lights (2/3)" are meant to be alike. */
function partsOfOne(a: string, b: string): boolean {
  const [x, y] = [NUMBERED.exec(a), NUMBERED.exec(b)];
  return x !== null && y !== null && a !== b && x[1] === y[1] && x[2] === y[2];
}
