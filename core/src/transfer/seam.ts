import type { Difference, FamilyReport, State } from '../compare/types.ts';
import type { OnPurpose } from '../compare/planned.ts';
import type { ArrivalFacts } from './differences.ts';
import type { PouchRow } from './pouch.ts';

/** One aligned row of both sides of a comparison. */
export interface SeamRow {
  readonly key: string;
  readonly state: State;
  readonly left: PouchRow | null;
  readonly right: PouchRow | null;
  readonly differences: readonly Difference[];
  /** What was put right of it before it was sent, and arrived so: from the source to what was planned. */
  readonly purpose: readonly Difference[];
}

/** What rows are made of. */
export type SeamFacts = Pick<ArrivalFacts, 'comparison' | 'left' | 'right'> & {
  readonly onPurpose: readonly OnPurpose[];
};

/** Source order, with each extra item after the arrived item it follows. */
export function seamRows({ comparison, left, right, onPurpose }: SeamFacts): SeamRow[] {
  const byLeft = new Map(comparison.pairs.map((p) => [p.source, p]));
  const rightById = new Map(right.map((r) => [r.id, r]));
  const follow = extrasAfter(right, new Set(comparison.extra.map((e) => e.id)));
  const purpose = new Map<string, Difference[]>();
  for (const { kind, node, difference } of onPurpose)
    if (kind === 'item') purpose.set(node, [...(purpose.get(node) ?? []), difference]);
  const rows: SeamRow[] = [];
  const addExtras = (after: string | null): void => {
    for (const row of follow.get(after) ?? [])
      rows.push({ key: `r${row.id}`, state: 'extra', left: null, right: row, differences: [], purpose: [] });
  };
  addExtras(null);
  const families = reseeded(comparison.families);
  for (const row of left) {
    const pair = byLeft.get(row.id);
    const there = pair ? (rightById.get(pair.arrived) ?? null) : null;
    const family = families.get(row.id);
    if (family) {
      // One row, however many replicas; unfolded it shows in what the first of them differs.
      if (family.items[0] === row.id) rows.push(familyRow(family, row, there, pair?.differences ?? []));
      if (there) addExtras(there.id);
      continue;
    }
    rows.push({
      key: `l${row.id}`,
      state: pair ? pair.state : 'missing',
      left: row,
      right: there,
      differences: pair?.differences ?? [],
      purpose: pair ? (purpose.get(row.id) ?? []) : [],
    });
    if (there) addExtras(there.id);
  }
  return rows;
}

/** Extra items by the arrived item that they follow; null is the start. */
function extrasAfter(
  right: readonly PouchRow[],
  extras: ReadonlySet<string>,
): ReadonlyMap<string | null, readonly PouchRow[]> {
  const follow = new Map<string | null, PouchRow[]>();
  let before: string | null = null;
  for (const row of right) {
    if (!extras.has(row.id)) before = row.id;
    else if (follow.has(before)) follow.get(before)!.push(row);
    else follow.set(before, [row]);
  }
  return follow;
}

/** Families that came with other numbers, by each of their items. */
const reseeded = (families: readonly FamilyReport[]): ReadonlyMap<string, FamilyReport> =>
  new Map(
    families.filter((f) => f.state === 'reseeded').flatMap((f) => f.items.map((item) => [item, f] as const)),
  );

const familyRow = (
  family: FamilyReport,
  left: PouchRow,
  right: PouchRow | null,
  differences: SeamRow['differences'],
): SeamRow => ({
  key: `f${family.id}`,
  state: 'altered',
  left: { ...left, name: `${family.title}: ${family.items.length} replicas`, key: '' },
  right: right && { ...right, name: 'the same exercise with other numbers', key: '' },
  differences,
  purpose: [],
});

/**
 * An arrival without what arrived as it was planned: its rows stand elsewhere, and whatever is told of an arrival tells
 * of what differs.
 * @param alsoNamed ids of arrived items that something else names
 */
export function withoutIntact<T extends SeamFacts>(arrival: T, alsoNamed: Iterable<string>): T {
  const { comparison, left, right, onPurpose } = arrival;
  const differing = comparison.pairs.filter((p) => p.state !== 'intact');
  const sources = new Set([
    ...differing.map((p) => p.source),
    ...comparison.missing.map((m) => m.id),
    ...onPurpose.flatMap((p) => (p.kind === 'item' ? [p.node] : [])),
  ]);
  const arrived = new Set([
    ...differing.map((p) => p.arrived),
    ...comparison.extra.map((e) => e.id),
    ...alsoNamed,
  ]);
  return {
    ...arrival,
    comparison: { ...comparison, pairs: differing },
    left: left.filter((row) => sources.has(row.id)),
    right: right.filter((row) => arrived.has(row.id)),
  };
}
