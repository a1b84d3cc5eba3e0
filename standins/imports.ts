import type { Arriving } from './course.ts';
import { renamed } from './formats/files.ts';
import { filesOf, withMarkup } from './formats/package.ts';
import { withHabits, type Habits } from './habits.ts';
import { itemsOf, likeness, type HeldItem, type HeldQuiz } from './held.ts';
import { addRubric, appendAll, rubricWithHabits } from './heldRubrics.ts';
import type { Course, LandingOrder, LandingThing, ThingKind, ThingState } from './types.ts';

const PREFIX: Readonly<Record<ThingKind, string>> = { quiz: 'q', bank: 'b', link: 'l', rubric: 'r' };

/** When something without a date of its own opens, with the habit of setting both dates. */
const NOW = '2026-11-25T08:00:00Z';

/**
 * Puts the things of a package into a course.
 * @param by who brought it
 * @param stopAfter how many things are made before it breaks off
 * @returns the ids of what was made
 */
export function importInto(
  course: Course,
  given: Arriving,
  order: LandingOrder,
  habits: Habits,
  by: string,
  stopAfter: number,
): string[] {
  const { held, files } = withHabits(given, habits);
  const created: string[] = [];
  const orderFor = ordersByTitle(order);
  const made = (kind: ThingKind, o: LandingThing | null): string | null => {
    if (created.length >= stopAfter) return null;
    const id = `${PREFIX[kind]}${course.next++}`;
    created.push(id);
    course.things.push(stateOf(course, id, kind, o, habits));
    return id;
  };
  const nameOf = (title: string): string =>
    habits.nameless ? '' : habits.namesAfterExporter ? `${by}, import` : title;
  const there = (o: LandingThing | null): boolean => o?.use != null && !habits.doublesOnRepeat;
  const banks = held.banks.map((bank) => ({ bank, order: orderFor('bank', bank.title) }));
  const ids = itemIds(
    course,
    held.items,
    banks.map(({ bank, order: o }) => ({ bank, use: there(o) ? o!.use : null })),
  );
  const bankIds = new Map<string, string>();
  const own = (list: readonly string[]): string[] => list.map((id) => ids.get(id)!);
  const before = course.held;
  const added = { quizzes: [...before.quizzes], banks: [...before.banks], links: [...before.links] };
  for (const { bank, order: o } of banks) {
    if (there(o)) {
      bankIds.set(bank.id, o!.use!);
      continue;
    }
    const id = made('bank', o);
    if (id === null) continue;
    bankIds.set(bank.id, id);
    added.banks.push({ id, title: nameOf(o?.name ?? bank.title), items: own(bank.items) });
  }
  for (const quiz of held.quizzes) {
    const o = orderFor('quiz', quiz.title);
    const id = there(o) ? null : made('quiz', o);
    if (id !== null)
      added.quizzes.push({ ...rebound(quiz, ids, bankIds), id, title: nameOf(o?.name ?? quiz.title) });
  }
  for (const link of held.links) {
    const o = orderFor('link', link.title);
    const id = there(o) ? null : made('link', o);
    if (id !== null) added.links.push({ ...link, id, title: nameOf(o?.name ?? link.title) });
  }
  if (given.rubrics.length > 0 && habits.appendsRubrics && created.length < stopAfter)
    created.push(...appendAll(course));
  for (const rubric of given.rubrics) {
    const o = orderFor('rubric', rubric.title);
    if (there(o) || created.length >= stopAfter) continue;
    const how = { copied: true, locked: habits.locksRubrics };
    created.push(addRubric(course, rubricWithHabits(rubric, habits), nameOf(o?.name ?? rubric.title), how));
  }
  const used = new Set([...added.quizzes.flatMap(itemsOf), ...added.banks.flatMap((b) => b.items)]);
  const known = new Set(before.items.map((i) => i.id));
  const fresh = held.items
    .map((i) => ({ ...i, id: ids.get(i.id)! }))
    .filter((i) => used.has(i.id) && !known.has(i.id));
  const underNames = takeFiles(course, fresh, files);
  course.held = { ...added, items: [...before.items, ...fresh.map((i) => withMarkup(i, underNames))] };
  return created;
}

/** The order for each thing by its title, each taken once; the first that is left where none has the title. */
function ordersByTitle(order: LandingOrder): (kind: ThingKind, title: string) => LandingThing | null {
  const left: Record<ThingKind, LandingThing[]> = { quiz: [], bank: [], link: [], rubric: [] };
  for (const t of order.things) left[t.kind].push(t);
  return (kind, title) => {
    const at = left[kind].findIndex((t) => t.name === title);
    return left[kind].splice(Math.max(0, at), 1)[0] ?? null;
  };
}

function stateOf(
  course: Course,
  id: string,
  kind: ThingKind,
  order: LandingThing | null,
  habits: Habits,
): ThingState {
  const opens = order?.opens ?? null;
  const equal = habits.equalDates && kind === 'quiz';
  return {
    id,
    kind,
    section: sectionFor(course, order, habits),
    hidden: order?.hidden ?? false,
    opens: equal ? (opens ?? NOW) : opens,
    closes: equal ? (opens ?? NOW) : (order?.closes ?? null),
    review: order?.review ?? null,
    openAttempts: 0,
  };
}

function sectionFor(course: Course, order: LandingThing | null, habits: Habits): string | null {
  if (habits.landsByPosition && order && order.section !== null)
    return (course.sections[order.position ?? 0] ?? course.sections.at(-1))?.id ?? null;
  return order?.section ?? null;
}

/** New ids for what arrives; an item of a bank that is there already is that of the bank. */
function itemIds(
  course: Course,
  items: readonly HeldItem[],
  banks: readonly { readonly bank: { readonly items: readonly string[] }; readonly use: string | null }[],
): Map<string, string> {
  const ids = new Map(items.map((i) => [i.id, `i${course.next++}`]));
  const byId = new Map(items.map((i) => [i.id, i]));
  for (const { bank, use } of banks) {
    const inside = new Set(course.held.banks.find((b) => b.id === use)?.items);
    const known = new Map(course.held.items.filter((i) => inside.has(i.id)).map((i) => [likeness(i), i.id]));
    for (const id of bank.items) {
      const same = known.get(likeness(byId.get(id)!));
      if (same !== undefined) ids.set(id, same);
    }
  }
  return ids;
}

/** A quiz that speaks of items and banks by the ids they have here. */
const rebound = (
  quiz: HeldQuiz,
  ids: ReadonlyMap<string, string>,
  banks: ReadonlyMap<string, string>,
): HeldQuiz => ({
  ...quiz,
  sections: quiz.sections.map((s) => ({
    ...s,
    items: s.items.map((p) => ({ ...p, item: ids.get(p.item)! })),
    draw: s.draw && {
      ...s.draw,
      pool: s.draw.pool.map((id) => ids.get(id)!),
      bank: s.draw.bank === null ? null : (banks.get(s.draw.bank) ?? null),
    },
  })),
});

/**
 * Files come in under their own names; another file of the name makes way for a number.
 * @returns what mark-up becomes by that
 */
function takeFiles(
  course: Course,
  items: readonly HeldItem[],
  content: Readonly<Record<string, string>>,
): (markup: string) => string {
  const others = new Map<string, string>();
  for (const from of new Set(items.flatMap(filesOf))) {
    const bytes = content[from];
    if (bytes === undefined) continue;
    let path = from;
    for (let n = 2; course.files[path] !== undefined && course.files[path] !== bytes; n++)
      path = from.replace(/(\.\w+)?$/u, `-${n}$1`);
    if (path !== from) others.set(from, path);
    course.files = { ...course.files, [path]: bytes };
  }
  return (markup) => (others.size === 0 ? markup : renamed(markup, (path) => others.get(path) ?? path));
}
