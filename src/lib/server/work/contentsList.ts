import {
  groupsOf,
  ItemSet,
  looseIds,
  quizPoints,
  setItems,
  tickId,
  totalPoints,
  UNNAMED,
  type CourseAssignment,
  type Tick,
} from '@alforja/core';
import { ITEMS_A_PAGE, says, type ContentsList, type ItemPage, type Thing } from '../../shared/contents.ts';
import { itemLinesAt, lineName } from '../store/items.ts';
import { itemsIn, namesThatFit, sourceFacts, type SourceAsked, type SourceFacts } from './sourceFacts.ts';

/** What can be ticked in a transfer's source, and the items of it a page at a time. */

export interface ListAsked extends SourceAsked {
  /** Only what holds these words, by its own title or by an item's name; '' is all. */
  readonly filter: string;
}

export async function contentsListTask(asked: ListAsked): Promise<ContentsList> {
  const facts = await sourceFacts(asked);
  if (!facts) return { groups: [], loose: 0, rubrics: 0 };
  const { tree, items, places } = facts;
  const filter = asked.filter.trim();
  const fits = filter === '' ? () => true : await namesThatFit(facts.readingId, filter);
  const things = thingsOf(facts, asked.outline?.assignments ?? []);
  const groups = groupsOf(tree, asked.outline).map(({ id, name, nodes }) => {
    const shown = nodes
      .flatMap((node) => things.get(tickId(node)) ?? [])
      .filter(({ title, tick }) => says(title, filter) || places.found(itemsIn(tree, tick)).some(fits));
    const held = new ItemSet(places);
    for (const { tick } of shown) held.addAll(itemsIn(tree, tick));
    const inside = held.among(items);
    return { id, name, things: shown, items: inside.length, points: totalPoints(inside) };
  });
  return {
    groups: groups.filter((g) => g.things.length > 0),
    loose: looseIn(facts).filter(fits).length,
    rubrics: tree.rubrics.length,
  };
}

/** Places of the items that stand in no quiz and no bank. */
const looseIn = ({ tree, items, places }: SourceFacts): Int32Array => {
  const ids = items.map((i) => i.id);
  return places.found(looseIds(tree, ids, places));
};

/** Everything that can be ticked, by its tick. */
export function thingsOf(
  { tree, items, places }: Pick<SourceFacts, 'tree' | 'items' | 'places'>,
  assignments: readonly CourseAssignment[],
): ReadonlyMap<string, Thing> {
  const byId = { get: (id: string) => items[places.at(id) ?? -1] };
  const thing = (tick: Tick, title: string, over: Partial<Thing> = {}): [string, Thing] => {
    const held = Array.from(places.found(itemsIn(tree, tick)), (at) => items[at]!);
    const nothing = { draws: 0, set: null, criteria: 0, link: null, grades: [] };
    return [
      tickId(tick),
      { ...nothing, tick, title, items: held.length, points: totalPoints(held), ...over },
    ];
  };
  return new Map([
    ...tree.quizzes.map((q) => {
      const draws = q.sections.filter((s) => s.draw !== null).length;
      const set = draws > 0 ? { items: setItems(q), points: quizPoints(q, byId) } : null;
      return thing({ kind: 'quiz', nodeId: q.id }, q.title || UNNAMED.quiz, { draws, set });
    }),
    ...tree.banks.map((b) => thing({ kind: 'bank', nodeId: b.id }, b.title || UNNAMED.bank)),
    ...tree.links.map((l) => thing({ kind: 'link', nodeId: l.id }, l.title || l.url, { link: l.kind })),
    ...tree.rubrics.map((r) =>
      thing({ kind: 'rubric', nodeId: r.id }, r.title || UNNAMED.rubric, {
        criteria: r.criteria.length,
        grades: assignments
          .filter((a) => r.attachedTo.includes(a.id))
          .map((a) => a.title || UNNAMED.assignment),
      }),
    ),
  ]);
}

export interface ItemsAsked extends ListAsked {
  /** A quiz, a bank, or everything that stands in none. */
  readonly of: Tick;
  /** The first that is wanted, from 0. */
  readonly from: number;
}

/** Items of a thing, in order; with a filter that its title does not fit, those whose names do. */
export async function contentsItemsTask(asked: ItemsAsked): Promise<ItemPage> {
  const facts = await sourceFacts(asked);
  if (!facts) return { rows: [], total: 0 };
  const { tree, places, readingId } = facts;
  const { of, from } = asked;
  const filter = asked.filter.trim();
  const all = of.kind === 'loose' ? looseIn(facts) : places.found(itemsIn(tree, of));
  const title = [...tree.quizzes, ...tree.banks].find((t) => t.id === of.nodeId)?.title;
  const whole = filter === '' || (title !== undefined && says(title, filter));
  const shown = whole ? all : all.filter(await namesThatFit(readingId, filter));
  const rows = await rowsAt(readingId, [...shown.slice(from, from + ITEMS_A_PAGE)]);
  return { rows, total: shown.length };
}

async function rowsAt(readingId: string, at: readonly number[]): Promise<ItemPage['rows']> {
  const lines = new Map((await itemLinesAt(readingId, at)).map((line) => [line.seq, line]));
  return at.flatMap((seq) => {
    const line = lines.get(seq);
    if (!line) return [];
    const { id, kind, points } = line;
    return [{ seq, id, name: lineName(line), kind, points }];
  });
}
