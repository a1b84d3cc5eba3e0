import type { ItemRef, Quiz, Section } from '../../model/holding.ts';
import { inOwnDraw } from '../../model/quizzes.ts';
import type { Editing } from '../editing.ts';
import { isRefused, refused, type Refused } from '../refusal.ts';
import { sectionAt, sectionOf, withSection } from './containers.ts';
import type { WholeOperation } from './operation.ts';

const put = (editing: Editing, quiz: Quiz): undefined => void editing.quizzes.set(quiz.id, quiz);

export const SECTION_ADD: WholeOperation<'section-add'> = {
  on: 'whole',
  now: (editing, { node, id }) => {
    const quiz = editing.quiz(node);
    return isRefused(quiz) ? quiz : (quiz.sections.find((s) => s.id === id)?.title ?? null);
  },
  wanted: (edit) => edit.to,
  apply: (editing, { node, id, to, after }) => {
    const quiz = editing.quizzes.get(node)!;
    if (quiz.sections.some((s) => s.id === id)) return refused('section-used', { section: id });
    const at = after === null ? -1 : sectionAt(quiz, after);
    if (isRefused(at)) return at;
    const made: Section = { id, title: to, shuffle: false, items: [], draw: null, instructions: null };
    return put(editing, {
      ...quiz,
      sections: [...quiz.sections.slice(0, at + 1), made, ...quiz.sections.slice(at + 1)],
    });
  },
};

export const SECTION_TITLE: WholeOperation<'section-title'> = {
  on: 'whole',
  now: (editing, { node, section, to }) => {
    const found = sectionOf(editing, node, section);
    // It may go by its new title already.
    return isRefused(found) && editing.quizzes.get(node)?.sections.some((s) => s.title === to)
      ? to
      : isRefused(found)
        ? found
        : found.section.title;
  },
  wanted: (edit) => edit.to,
  apply: (editing, { node, section, to }) => {
    const found = sectionOf(editing, node, section);
    return isRefused(found) ? found : put(editing, withSection(found.quiz, found.at, { title: to }));
  },
};

/** A section goes; what stood in it stands in the one before it, else in the one after it. */
export const SECTION_DROP: WholeOperation<'section-drop'> = {
  on: 'whole',
  now: (editing, { node, section }) => {
    const found = sectionOf(editing, node, section);
    return isRefused(found) ? found : found.section.title;
  },
  apply: (editing, { node, section }) => {
    const found = sectionOf(editing, node, section);
    if (isRefused(found)) return found;
    const { quiz, at, section: gone } = found;
    const fixed = gone.items.filter((r) => !inOwnDraw(gone, r.item));
    const sections = quiz.sections.filter((_, n) => n !== at);
    const heir = sections[Math.max(0, at - 1)];
    if (fixed.length > 0 && !heir) return refused('section-used', { section });
    return put(editing, {
      ...quiz,
      sections: sections.map((s) =>
        s !== heir || fixed.length === 0
          ? s
          : { ...s, items: at > 0 ? [...s.items, ...fixed] : [...fixed, ...s.items] },
      ),
    });
  },
};

export const ORDER: WholeOperation<'order'> = {
  on: 'whole',
  now: (editing, { node, section }) => {
    const found = sectionOf(editing, node, section);
    return isRefused(found) ? found : found.section.items.map((r) => r.item);
  },
  wanted: (edit) => edit.to,
  apply: (editing, { node, section, to }) => {
    const found = sectionOf(editing, node, section);
    if (isRefused(found)) return found;
    const refs = new Map(found.section.items.map((r) => [r.item, r]));
    const same = refs.size === to.length && new Set(to).size === to.length && to.every((id) => refs.has(id));
    if (!same || refs.size !== found.section.items.length) return refused('order-other');
    return put(editing, withSection(found.quiz, found.at, { items: to.map((id) => refs.get(id)!) }));
  },
};

/** Where an item stands in a quiz: its section and its place in it. */
function placeOf(quiz: Quiz, item: string): { section: number; at: number; ref: ItemRef } | null {
  for (const [section, s] of quiz.sections.entries()) {
    const at = s.items.findIndex((r) => r.item === item);
    if (at >= 0) return { section, at, ref: s.items[at]! };
  }
  return null;
}

/** An item comes into a section of a quiz, from another of its sections or from outside. */
export const PLACE: WholeOperation<'place'> = {
  on: 'whole',
  now: (editing, { node, item }) => {
    const quiz = editing.quiz(node);
    if (isRefused(quiz)) return quiz;
    const there = editing.item(item);
    if (isRefused(there)) return there;
    const found = placeOf(quiz, item);
    return found && { section: found.section, at: found.at };
  },
  wanted: (edit, editing) => {
    const quiz = editing.quizzes.get(edit.node);
    const section = quiz ? sectionAt(quiz, edit.section) : null;
    if (!quiz || section === null || isRefused(section)) return undefined;
    const now = placeOf(quiz, edit.item);
    const at = edit.at ?? (now?.section === section ? now.at : quiz.sections[section]!.items.length);
    return { section, at };
  },
  apply: (editing, { node, item, section, at }): Refused | undefined => {
    const found = sectionOf(editing, node, section);
    if (isRefused(found)) return found;
    const before = placeOf(found.quiz, item);
    const ref = before?.ref ?? { item, weight: 1 };
    const cut = before
      ? withSection(found.quiz, before.section, {
          items: found.quiz.sections[before.section]!.items.filter((r) => r.item !== item),
        })
      : found.quiz;
    const items = cut.sections[found.at]!.items;
    const place = Math.min(at ?? items.length, items.length);
    return put(
      editing,
      withSection(cut, found.at, { items: [...items.slice(0, place), ref, ...items.slice(place)] }),
    );
  },
};

/** What an item's points are multiplied by in a quiz. Points of an item carry the weight of its first place. */
export const WEIGHT: WholeOperation<'weight'> = {
  on: 'whole',
  now: (editing, { node, item }) => {
    const quiz = editing.quiz(node);
    if (isRefused(quiz)) return quiz;
    return placeOf(quiz, item)?.ref.weight ?? refused('item-not-here', { item });
  },
  wanted: (edit) => edit.to,
  apply: (editing, { node, item, to }) => {
    const quiz = editing.quizzes.get(node)!;
    const first = [...editing.quizzes.values()].find((q) => placeOf(q, item) !== null);
    const before = placeOf(quiz, item)!.ref.weight;
    const held = editing.items.get(item);
    if (first === quiz && held && before > 0)
      editing.items.set(item, {
        ...held,
        points: (held.points * to) / before,
        scale: (held.scale * to) / before,
      });
    return put(editing, {
      ...quiz,
      sections: quiz.sections.map((s) => ({
        ...s,
        items: s.items.map((r) => (r.item === item ? { ...r, weight: to } : r)),
      })),
    });
  },
};
