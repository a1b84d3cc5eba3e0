import { tickId, type Tick } from '@alforja/core';
import type { ContentsList, Thing } from '$lib/shared/contents';
import { count, plural } from '../format';

const KIND_WORDS: Partial<Record<Tick['kind'], string>> = {
  quiz: 'Quiz',
  bank: 'Bank',
  link: 'Link',
  rubric: 'Rubric',
};
export const kindWord = ({ tick }: Pick<Thing, 'tick'>): string => KIND_WORDS[tick.kind] ?? 'Item';

/** What a thing is, in a word or two. */
export function wordOf({ tick, draws, criteria, link }: Thing): string {
  if (tick.kind === 'quiz') return draws > 0 ? `quiz, ${plural(draws, 'draw')}` : 'quiz';
  if (tick.kind === 'rubric') return `rubric, ${plural(criteria, 'criterion', 'criteria')}`;
  if (tick.kind === 'link') return link === 'lti' ? 'LTI link' : 'web link';
  return tick.kind;
}

const holdsItems = ({ tick }: Thing): boolean => tick.kind === 'quiz' || tick.kind === 'bank';

/** What a thing holds, in a few words; of a quiz with draws also what one student is set. */
export function holdsOf(thing: Thing): string {
  const { items, points, set } = thing;
  if (!holdsItems(thing)) return '';
  return set
    ? `${plural(items, 'item')}; each student ${count(set.items)}, ${plural(set.points, 'point')}`
    : `${plural(items, 'item')}, ${plural(points, 'point')}`;
}

/** Everything that a list shows, by its tick. */
export const thingsIn = ({ groups }: ContentsList): ReadonlyMap<string, Thing> =>
  new Map(groups.flatMap((g) => g.things.map((t) => [tickId(t.tick), t] as const)));

/** What says that a thing stays behind although something that goes needs it. */
export const withoutTick = ({ kind, nodeId }: Tick): Tick => ({
  kind: kind === 'rubric' ? 'without-rubric' : 'without',
  nodeId,
});
