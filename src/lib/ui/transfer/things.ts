import {
  type CourseAssignment,
  looseIds,
  quizItems,
  quizPoints,
  setItems,
  type ThingGroup,
  type Tick,
  tickId,
  type Tree,
  UNNAMED,
} from '@alforja/core';
import type { ItemRow } from '$lib/shared/types';
import { count, plural } from '../format';

/** A thing that can be ticked, as the contents of a transfer list it. */
export interface Thing {
  readonly tick: Tick;
  readonly title: string;
  readonly word: string;
  readonly items: readonly ItemRow[];
  /** What it holds, in a few words; of a quiz with draws also what one student is set. */
  readonly holds: string;
  /** Titles of the assignments that a rubric grades. */
  readonly grades: readonly string[];
}

export interface Group extends Pick<ThingGroup, 'id' | 'name'> {
  readonly things: readonly Thing[];
}

const KIND_WORDS: Partial<Record<Tick['kind'], string>> = {
  quiz: 'Quiz',
  bank: 'Bank',
  link: 'Link',
  rubric: 'Rubric',
};
export const kindWord = ({ tick }: Thing): string => KIND_WORDS[tick.kind] ?? 'Item';

/** Everything that can be ticked, by its tick. */
export function thingsOf(
  tree: Tree,
  rows: readonly ItemRow[],
  assignments: readonly CourseAssignment[],
): ReadonlyMap<string, Thing> {
  const byId = new Map(rows.map((r) => [r.id, r]));
  const itemsOf = (ids: readonly string[]): ItemRow[] => ids.flatMap((id) => byId.get(id) ?? []);
  const thing = (
    tick: Tick,
    over: Omit<Thing, 'tick' | 'grades' | 'holds'> & Partial<Thing>,
  ): [string, Thing] => [tickId(tick), { tick, grades: [], holds: '', ...over }];
  return new Map([
    ...tree.quizzes.map((q) => {
      const draws = q.sections.filter((s) => s.draw !== null).length;
      const items = itemsOf([...new Set(quizItems(q))]);
      return thing(
        { kind: 'quiz', nodeId: q.id },
        {
          title: q.title || UNNAMED.quiz,
          word: draws > 0 ? `quiz, ${plural(draws, 'draw')}` : 'quiz',
          items,
          holds:
            draws > 0
              ? `${plural(items.length, 'item')}; each student ${count(setItems(q))}, ${plural(quizPoints(q, byId), 'point')}`
              : itemsAndPoints(items),
        },
      );
    }),
    ...tree.banks.map((b) => {
      const items = itemsOf(b.items);
      return thing(
        { kind: 'bank', nodeId: b.id },
        { title: b.title || UNNAMED.bank, word: 'bank', items, holds: itemsAndPoints(items) },
      );
    }),
    ...tree.links.map((l) =>
      thing(
        { kind: 'link', nodeId: l.id },
        { title: l.title || l.url, word: l.kind === 'web' ? 'web link' : 'LTI link', items: [] },
      ),
    ),
    ...tree.rubrics.map((r) =>
      thing(
        { kind: 'rubric', nodeId: r.id },
        {
          title: r.title || UNNAMED.rubric,
          word: `rubric, ${plural(r.criteria.length, 'criterion', 'criteria')}`,
          items: [],
          grades: assignments
            .filter((a) => r.attachedTo.includes(a.id))
            .map((a) => a.title || UNNAMED.assignment),
        },
      ),
    ),
  ]);
}

/** Whether a text holds what somebody filters by; an empty filter holds for all. */
export const says = (text: string, filter: string): boolean =>
  text.toLowerCase().includes(filter.trim().toLowerCase());

/** The groups with those of their things that fit a filter: by their own title, or by one of their items. */
export const groupsShown = (
  groups: readonly ThingGroup[],
  things: ReadonlyMap<string, Thing>,
  filter: string,
): Group[] =>
  groups
    .map(({ id, name, nodes }) => ({
      id,
      name,
      things: nodes
        .flatMap((n) => things.get(tickId(n)) ?? [])
        .filter((t) => says(t.title, filter) || t.items.some((r) => says(r.name, filter))),
    }))
    .filter((g) => g.things.length > 0);

/** What says that a thing stays behind although something that goes needs it. */
export const withoutTick = ({ kind, nodeId }: Tick): Tick => ({
  kind: kind === 'rubric' ? 'without-rubric' : 'without',
  nodeId,
});

export const pointsIn = (rows: readonly ItemRow[]): number => rows.reduce((sum, r) => sum + r.points, 0);

const itemsAndPoints = (rows: readonly ItemRow[]): string =>
  `${plural(rows.length, 'item')}, ${plural(pointsIn(rows), 'point')}`;

/** Items that stand in no quiz and no bank. */
export function looseItems(tree: Tree, rows: readonly ItemRow[]): ItemRow[] {
  const loose = new Set(
    looseIds(
      tree,
      rows.map((r) => r.id),
    ),
  );
  return rows.filter((r) => loose.has(r.id));
}
