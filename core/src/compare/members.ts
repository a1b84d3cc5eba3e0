import type { Holding, Item } from '../model/holding.ts';
import { nameOf, UNNAMED } from '../model/plainText.ts';
import type { Differences } from './differences.ts';
import { difference } from './differences.ts';
import type { MembershipSaid } from './said.ts';

/** Two holdings, and source item id to arrived item id. */
export interface Sides {
  readonly source: Holding;
  readonly arrived: Holding;
  readonly items: ReadonlyMap<string, string>;
}

/** At most this many items are named in a difference; the counts tell the rest. */
export const NAMED = 10;

/** Item ids of the source in the arrived side's; one that did not arrive is nobody's. */
export const inArrived = (ids: readonly string[], { items }: Sides): string[] =>
  ids.map((id) => items.get(id) ?? `\u0000${id}`);

export const namesOf = (ids: readonly string[], items: readonly Item[]): string[] =>
  ids.slice(0, NAMED).map((id) => {
    const item = items.find((i) => i.id === id);
    return item ? nameOf(item) : UNNAMED.item;
  });

/** Those of the first list that the second has not, each as often as it is wanting. */
export function wanting(first: readonly string[], second: readonly string[]): number[] {
  const there = new Map<string, number>();
  for (const id of second) there.set(id, (there.get(id) ?? 0) + 1);
  return first.flatMap((id, at) => {
    const left = there.get(id) ?? 0;
    there.set(id, left - 1);
    return left > 0 ? [] : [at];
  });
}

/** Which items are on one side alone; says whether there are any. */
export function compareSets(
  out: Differences,
  left: readonly string[],
  right: readonly string[],
  sides: Sides,
): boolean {
  const wanted = inArrived(left, sides);
  const gone = wanting(wanted, right).map((at) => left[at]!);
  const added = wanting(right, wanted).map((at) => right[at]!);
  if (gone.length === 0 && added.length === 0) return false;
  out.add(
    'membership',
    { items: left.length, only: namesOf(gone, sides.source.items) },
    { items: right.length, only: namesOf(added, sides.arrived.items) },
  );
  return true;
}

/** The order of the same items. Of a long list the part is named that begins with the first out of its place. */
export function compareOrder(
  out: Differences,
  left: readonly string[],
  right: readonly string[],
  sides: Sides,
): void {
  const wanted = inArrived(left, sides);
  const first = wanted.findIndex((id, at) => id !== right[at]);
  if (first < 0) return;
  const from = left.length > NAMED ? first : 0;
  const order = (ids: readonly string[], items: readonly Item[]): MembershipSaid => ({
    order: namesOf(ids.slice(from), items),
  });
  out.list.push(difference('membership', order(left, sides.source.items), order(right, sides.arrived.items)));
}

/** Which items are in a list, and, where they are the same, in which order. */
export function compareMembers(
  out: Differences,
  left: readonly string[],
  right: readonly string[],
  sides: Sides,
): void {
  if (!compareSets(out, left, right, sides)) compareOrder(out, left, right, sides);
}
