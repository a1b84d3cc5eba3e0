import type { Difference, Example, FamilyReport, PouchRow, State } from '@alforja/core';
import type { Arrival } from '$lib/shared/transfers';

/** One aligned row of the two-pouch view. */
export interface SeamRow {
  readonly key: string;
  readonly state: State;
  readonly left: PouchRow | null;
  readonly right: PouchRow | null;
  readonly differences: readonly Difference[];
  /** What was put right of it before it was sent, and arrived so: from the source to what was planned. */
  readonly purpose: readonly Difference[];
}

/** Source order, with each extra item after the arrived item it follows. */
export function seamRows(arrival: Arrival): SeamRow[] {
  const { comparison, left, right } = arrival;
  const byLeft = new Map(comparison.pairs.map((p) => [p.source, p]));
  const rightById = new Map(right.map((r) => [r.id, r]));
  const extras = new Set(comparison.extra.map((e) => e.id));
  const follow = new Map<string | null, PouchRow[]>();
  let before: string | null = null;
  for (const row of right) {
    if (extras.has(row.id)) follow.set(before, [...(follow.get(before) ?? []), row]);
    else before = row.id;
  }
  const purpose = new Map<string, Difference[]>();
  for (const { kind, node, difference } of arrival.onPurpose)
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

/** The answer of an example in words; in its identifiers where a record was made before words were kept. */
export const exampleAnswer = ({ answer, response }: Example): string =>
  (answer ?? Object.values(response).flat()).join(', ');

/** An answer that is shown other feedback may well score the same. */
export const showsScore = ({ facet, example }: Pick<Difference, 'facet' | 'example'>): boolean =>
  facet !== 'feedback' || example?.from !== example?.to;

export const STATES: readonly State[] = ['intact', 'altered', 'missing', 'extra'];

export const FACET_NAMES: Readonly<Record<Difference['facet'], string>> = {
  wording: 'wording changed',
  choices: 'choices changed',
  'choice-order': 'choices in another order',
  key: 'key changed',
  points: 'points changed',
  scoring: 'scoring changed',
  tolerance: 'tolerance changed',
  'case-sensitivity': 'capitals count differently',
  feedback: 'feedback changed',
  files: 'image or file changed',
  mathematics: 'formula changed',
  category: 'category changed',
  title: 'title changed',
  shuffle: 'shuffling changed',
  kind: 'kind of question changed',
  instructions: 'instructions changed',
  attempts: 'attempts changed',
  'time-limit': 'time limit changed',
  dates: 'dates changed',
  draw: 'draw changed',
  sections: 'sections changed',
  membership: 'other items in it',
  'pass-mark': 'pass mark changed',
  criteria: 'criteria changed',
  levels: 'levels changed',
};
