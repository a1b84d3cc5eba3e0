import { finding, type Finding } from '../model/finding.ts';
import { plainNumber } from '../model/number.ts';
import { KIND_NAMES } from '../report/kind.ts';
import type { DraftChange } from './changes.ts';
import { itemKey, NO_FILTER, type BankAt } from './draft.ts';
import { whole, type Hazard, type Situation } from './hazard.ts';
import type { Outlook } from './outlook.ts';
import { planGaps, planLacks, planPlaces, type PlanGap } from './plan.ts';
import { bankItems } from './pool.ts';

const categoryName = (category: string): string => category || 'no category';

/** What a plan wants and does not get: of its banks, and of the quiz. */
export function planned({ draft, shelves, outlook }: Situation): Hazard[] {
  const points = (of: Outlook['kinds']): Map<string, number> =>
    new Map([...of].map(([n, s]) => [n, s.points]));
  const lacks = planLacks(draft.plan, planPlaces(shelves, draft.plan.from)).map(({ cell, has }) =>
    whole(
      finding(
        'plan-lacks',
        'warning',
        {},
        {
          wanted: cell.count,
          has,
          category: categoryName(cell.category),
          kind: KIND_NAMES[cell.kind] ?? cell.kind,
        },
      ),
      [
        {
          do: 'plan',
          to: { ...draft.plan, cells: draft.plan.cells.map((c) => (c === cell ? { ...c, count: has } : c)) },
        },
      ],
    ),
  );
  if (outlook.items === 0) return lacks;
  const gaps = planGaps(draft.plan, { category: points(outlook.categories), kind: points(outlook.kinds) });
  return [...lacks, ...(gaps.length > 0 ? [whole(missed(gaps))] : [])];
}

/** So many gaps are told; the rest are counted. */
const MOST_GAPS = 4;

function missed(gaps: readonly PlanGap[]): Finding {
  const said = gaps
    .slice(0, MOST_GAPS)
    .map(({ by, name, planned, points }) => {
      const called = by === 'kind' ? (KIND_NAMES[name] ?? name) : categoryName(name);
      return `“${called}” ${rounded(points)} of ${rounded(planned)}`;
    })
    .join(', ');
  const rest = gaps.length > MOST_GAPS ? `, and ${gaps.length - MOST_GAPS} more` : '';
  return finding('plan-missed', 'note', {}, { gaps: `${said}${rest}` });
}
const rounded = (n: number): string => plainNumber(Math.round(n * 10) / 10);

/** Categories of the banks it draws from, or is planned from, that nobody is asked about. */
export function unasked({ draft, shelves, outlook, from }: Situation): Hazard[] {
  if (outlook.items === 0) return [];
  const banks = new Map<string, BankAt>();
  const note = ({ place, bank }: BankAt): void =>
    void banks.set(`${place}\u0001${bank ?? ''}`, { place, bank });
  for (const s of draft.sections) s.draw?.pool.from.forEach(note);
  draft.plan.from.forEach(note);
  const used = new Set([...from.values()].map(itemKey));
  const there = new Map<string, { asked: boolean; bank: BankAt }>();
  for (const bank of banks.values())
    for (const { item, category } of bankItems(shelves, bank)) {
      if (category === null) continue;
      const had = there.get(category) ?? { asked: false, bank };
      had.asked ||= used.has(itemKey({ place: bank.place, item }));
      there.set(category, had);
    }
  const left = [...there].filter(([category, { asked }]) => !asked && !outlook.categories.has(category));
  if (left.length === 0) return [];
  const changes = left.map(([category, { bank }]): DraftChange => ({
    do: 'section-add',
    title: category,
    draw: {
      pick: 1,
      pointsEach: null,
      pool: { from: [{ ...bank, filter: { ...NO_FILTER, categories: [category] } }], named: [], without: [] },
    },
  }));
  const names = left.map(([category]) => `“${category}”`).join(', ');
  return [whole(finding('category-unasked', 'note', {}, { categories: names, count: left.length }), changes)];
}
