import type { Item, ItemRef, Section } from '../../model/holding.ts';
import type { Editing } from '../editing.ts';

/** An identifier that no item has yet. */
export function freeId(editing: Editing, wanted: string): string {
  let id = wanted;
  while (editing.items.has(id)) id = `${id}x`;
  return id;
}

/** Whether a draw of some quiz chooses from an item. */
export const isDrawn = (editing: Editing, item: string): boolean =>
  [...editing.quizzes.values()].some((q) => q.sections.some((s) => s.draw?.pool.includes(item)));

/** References to several items in the place of one. */
export const inTheirPlace = (list: readonly ItemRef[], item: string, ids: readonly string[]): ItemRef[] =>
  list.flatMap((r) => (r.item === item ? ids.map((i) => ({ ...r, item: i })) : [r]));

/**
 * Several items in the place of one, in the banks and quizzes where it stands.
 * @param sections what becomes of a section in which it is set to everybody
 */
export function severalInstead(
  editing: Editing,
  item: string,
  made: readonly Item[],
  sections: (section: Section, ids: readonly string[]) => Section[],
): void {
  const order = [...editing.items.entries()];
  editing.items.clear();
  for (const [id, other] of order) {
    if (id !== item) editing.items.set(id, other);
    else for (const m of made) editing.items.set(m.id, m);
  }
  const ids = made.map((m) => m.id);
  for (const bank of editing.banksOf(item)) editing.exchange(bank, item, ids);
  const sets = (section: Section): boolean => section.items.some((r) => r.item === item);
  for (const [id, quiz] of editing.quizzes)
    if (quiz.sections.some(sets))
      editing.quizzes.set(id, {
        ...quiz,
        sections: quiz.sections.flatMap((s) => (sets(s) ? sections(s, ids) : [s])),
      });
}
