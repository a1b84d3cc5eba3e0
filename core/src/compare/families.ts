import equal from 'fast-deep-equal';
import { familiesOf, type Family } from '../families/families.ts';
import { numericKey, oneRule, staleKeys } from '../families/keys.ts';
import { shapeOf, type Shape } from '../families/shape.ts';
import type { Matching } from '../match/match.ts';
import type { Holding, Item } from '../model/holding.ts';
import { near } from '../model/number.ts';
import type { Facet, FamilyReport, PairReport } from './types.ts';

/** In what replicas that were drawn anew differ: all that follows from their numbers, names and choices. */
const DRAWN_ANEW: ReadonlySet<Facet> = new Set([
  'title',
  'wording',
  'mathematics',
  'choices',
  'choice-order',
  'key',
  'scoring',
  'tolerance',
  'files',
  'feedback',
]);

interface Replica {
  readonly left: Shape;
  readonly right: Shape | null;
  readonly report: PairReport;
}

/**
 * Families of the source as they arrived. One whose replicas have other numbers and are the same exercise otherwise
 * is reseeded: one fact, however many items it has. A replica whose numbers changed and whose key did not is stale.
 */
export function compareFamilies(
  source: Pick<Holding, 'items' | 'quizzes'>,
  pairs: Matching['pairs'],
  reports: readonly PairReport[],
): FamilyReport[] {
  const families = familiesOf(source);
  if (families.length === 0) return [];
  const at = new Map(pairs.map((p, n) => [p.source, n]));
  return families.flatMap((family): FamilyReport[] => {
    const replicas = family.shapes.flatMap((left): Replica[] => {
      const n = at.get(left.item);
      if (n === undefined) return [];
      const report = reports[n]!;
      // What is intact has the same shape.
      const right = report.state === 'altered' ? shapeOf(pairs[n]!.arrived) : null;
      return [{ left, right, report }];
    });
    return replicas.length === 0 ? [] : [reportOf(family, replicas)];
  });
}

function reportOf(family: Family, replicas: readonly Replica[]): FamilyReport {
  const altered = replicas.filter((r) => r.report.state === 'altered');
  const stale = altered.length === 0 ? [] : staleIn(family, replicas);
  const anew =
    altered.length > 0 &&
    replicas.length === family.items.length &&
    altered.every(({ left, right, report }) => drawnAnew(left, right, report)) &&
    stale.length === 0;
  return {
    id: family.id,
    title: family.title,
    items: replicas.map((r) => r.left.item.id),
    missing: family.items.length - replicas.length,
    state: altered.length === 0 ? 'intact' : anew ? 'reseeded' : 'altered',
    stale,
  };
}

/** The same exercise with other numbers, worth the same. */
const drawnAnew = (left: Shape, right: Shape | null, { differences }: PairReport): boolean =>
  right !== null &&
  right.key === left.key &&
  near(left.item.points, right.item.points) &&
  (!equal(left.numbers, right.numbers) || !equal(left.masked, right.masked) || !sameWords(left, right)) &&
  differences.every((d) => DRAWN_ANEW.has(d.facet));

const sameWords = (a: Shape, b: Shape): boolean =>
  equal(a.names, b.names) && equal([...a.choices].sort(), [...b.choices].sort());

/** Arrived items whose numbers are others, but whose key stayed or is not what the numbers give. */
function staleIn(family: Family, replicas: readonly Replica[]): FamilyReport['stale'] {
  const changed = replicas.filter(
    ({ left, right }) => right?.key === left.key && !equal(left.numbers, right.numbers),
  );
  if (changed.length === 0) return [];
  const keys = new Map<Item, number | null>();
  const keyOf = (item: Item): number | null => {
    if (!keys.has(item)) keys.set(item, numericKey(item)?.key ?? null);
    return keys.get(item)!;
  };
  // All replicas of both sides follow one rule, where they follow any.
  const shapes = [...family.shapes, ...changed.map((r) => r.right!)];
  const odd = staleKeys({ shapes }).filter((s) => changed.some((r) => r.right!.item === s.item));
  if (odd.length > 0) return odd.map(({ item, key, expected }) => ({ item: item.id, key, expected }));
  if (new Set(family.items.map(keyOf)).size === 1) return [];
  return changed.flatMap(({ left, right }) => {
    const [was, is] = [keyOf(left.item), keyOf(right!.item)];
    return was !== null && was === is && !oneRule({ shapes })
      ? [{ item: right!.item.id, key: String(is), expected: null }]
      : [];
  });
}
