import { near } from '../model/number.ts';
import {
  freeId,
  itemKey,
  NO_FILTER,
  type BankAt,
  type ItemAt,
  type Plan,
  type PlanCell,
  type QuizDraft,
} from './draft.ts';
import type { ItemFacts } from './filter.ts';
import { bankItems, type Shelves } from './pool.ts';

/** What the banks of a plan have of one category and kind. */
export interface PlanPlace {
  readonly category: string;
  readonly kind: string;
  readonly items: readonly ItemAt[];
}

const cellKey = (category: string, kind: string): string => `${kind}\u0001${category}`;

/** What banks hold, by category and kind, in the order in which these are met. */
export function planPlaces(shelves: Shelves, from: readonly BankAt[]): PlanPlace[] {
  const out = new Map<string, { category: string; kind: string; items: ItemAt[] }>();
  const met = new Set<string>();
  for (const at of from)
    for (const { item, category, kind } of bankItems(shelves, at)) {
      const once = itemKey({ place: at.place, item });
      if (met.has(once)) continue;
      met.add(once);
      const key = cellKey(category ?? '', kind);
      const place = out.get(key) ?? { category: category ?? '', kind, items: [] };
      place.items.push({ place: at.place, item });
      out.set(key, place);
    }
  return [...out.values()];
}

/** A cell that asks for more than there is. */
export interface PlanLack {
  readonly cell: PlanCell;
  readonly has: number;
}
export function planLacks(plan: Plan, places: readonly PlanPlace[]): PlanLack[] {
  const has = new Map(places.map((p) => [cellKey(p.category, p.kind), p.items.length]));
  return plan.cells.flatMap((cell) => {
    const there = has.get(cellKey(cell.category, cell.kind)) ?? 0;
    return cell.count > there ? [{ cell, has: there }] : [];
  });
}

/** Points and items that a plan comes to. */
export const planTotals = ({ cells }: Pick<Plan, 'cells'>): { items: number; points: number } => ({
  items: cells.reduce((sum, c) => sum + c.count, 0),
  points: cells.reduce((sum, c) => sum + c.count * c.points, 0),
});

/**
 * A plan carried out: a section a cell, as draws, or as items that are picked now. The sections that stood there and
 * held nothing go.
 * @param random in [0, 1), for picking; items that no quiz uses yet go first
 */
export function carriedOut(
  draft: QuizDraft,
  as: 'draws' | 'items',
  shelves: Shelves,
  named: (cell: PlanCell) => string,
  random: () => number,
): QuizDraft {
  const { plan } = draft;
  const places = new Map(planPlaces(shelves, plan.from).map((p) => [cellKey(p.category, p.kind), p]));
  const used = usedIn(shelves, plan.from);
  const ids = new Set(draft.sections.map((s) => s.id));
  const taken = new Set(draft.sections.flatMap((s) => s.items.map((i) => i.key)));
  const kept = draft.sections.filter((s) => s.items.length > 0 || s.draw !== null);
  const made = plan.cells
    .filter((c) => c.count > 0)
    .map((cell) => {
      const id = freeId('section', ids);
      ids.add(id);
      const section = { id, title: named(cell), instructions: '', shuffle: false };
      if (as === 'draws') {
        const filter = { ...NO_FILTER, kinds: [cell.kind], categories: [cell.category] };
        const pool = { from: plan.from.map((f) => ({ ...f, filter })), named: [], without: [] };
        return { ...section, items: [], draw: { pick: cell.count, pointsEach: cell.points, pool } };
      }
      const there = places.get(cellKey(cell.category, cell.kind))?.items ?? [];
      const order = there
        .map((at) => ({ at, by: random() + (used.has(itemKey(at)) ? 1 : 0) }))
        .sort((a, b) => a.by - b.by)
        .slice(0, cell.count)
        .map(({ at }) => at);
      const items = order.map((at) => {
        const key = taken.has(at.item) ? freeId('item', taken) : at.item;
        taken.add(key);
        return { ...at, key, points: cell.points };
      });
      return { ...section, items, draw: null };
    });
  return { ...draft, sections: [...kept, ...made] };
}

function usedIn(shelves: Shelves, from: readonly BankAt[]): Set<string> {
  const used = (at: BankAt): string[] =>
    bankItems(shelves, at)
      .filter((i: ItemFacts) => i.used)
      .map((i) => itemKey({ place: at.place, item: i.item }));
  return new Set(from.flatMap(used));
}

/** Where what a quiz comes to is not what its plan says, by category or by kind. */
export interface PlanGap {
  readonly by: 'category' | 'kind';
  readonly name: string;
  readonly planned: number;
  readonly points: number;
}

/** @param points what the quiz gives by category and by kind */
export function planGaps(
  { cells }: Plan,
  points: { readonly category: ReadonlyMap<string, number>; readonly kind: ReadonlyMap<string, number> },
): PlanGap[] {
  if (!cells.some((c) => c.count > 0)) return [];
  return (['category', 'kind'] as const).flatMap((by) => {
    const planned = new Map<string, number>();
    for (const c of cells) planned.set(c[by], (planned.get(c[by]) ?? 0) + c.count * c.points);
    const names = new Set([...planned.keys(), ...points[by].keys()]);
    return [...names].flatMap((name): PlanGap[] => {
      const [want, has] = [planned.get(name) ?? 0, points[by].get(name) ?? 0];
      return near(want, has) ? [] : [{ by, name, planned: want, points: has }];
    });
  });
}
