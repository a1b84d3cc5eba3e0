import { contentsOf, tickId, UNNAMED, type ContentsView, type Tick } from '@alforja/core';
import { MOST_BEHIND, type BehindPlace, type ContentsShown } from '../../shared/contents.ts';
import { itemsNamed } from '../store/items.ts';
import { holders, itemsIn, sourceFacts, type SourceAsked, type SourceFacts } from './sourceFacts.ts';

/** What goes of a transfer's source when this is ticked, what comes along, and what does not go. */

export interface ContentsAsked extends SourceAsked {
  readonly ticks: readonly Tick[];
}

/** @throws where the source is gone or has not been read */
export async function contentsTask(asked: ContentsAsked): Promise<ContentsShown> {
  const facts = await sourceFacts(asked);
  if (!facts) throw new Error('The package has not been read yet, or is gone.');
  const { tree, items, readingId } = facts;
  const { behind, itemsBehind, ungraded, dependencies, ...view } = contentsOf(
    { ...tree, items },
    asked.ticks,
  );
  const all = foldBehind(behind, itemsBehind, facts);
  const shown = all.slice(0, MOST_BEHIND);
  const wanted = [
    ...shown.flatMap((place) => place.ids),
    ...ungraded.map((u) => u.item),
    ...dependencies.map((d) => d.neededBy),
  ];
  const named = await itemsNamed(readingId, [...new Set(wanted)]);
  const titles = new Map([...tree.quizzes, ...tree.banks].map((t) => [t.id, t.title]));
  const nameOf = (id: string): string => named.get(id)?.name ?? UNNAMED.item;
  return {
    ...view,
    dependencies: dependencies.map((d) => ({
      ...d,
      by: titles.get(d.neededBy) || (named.get(d.neededBy)?.name ?? d.neededBy),
    })),
    ungraded: ungraded.map(({ rubric, item }) => ({ rubric, item: nameOf(item) })),
    behind: shown.map(({ ids, title, ...place }) => ({
      ...place,
      title: title ?? nameOf(ids[0]!),
      names: title === null ? [] : ids.map(nameOf),
    })),
    places: all.length,
    left: behind.length + itemsBehind.length,
    ...singlesIn(facts, asked.ticks),
  };
}

/** A place whose items have no names yet; an item on its own has no title either. */
type Folded = Omit<BehindPlace, 'names' | 'title'> & {
  readonly title: string | null;
  /** The first of its items. */
  readonly ids: readonly string[];
};

/** What is not included: items under the quiz or bank they stand in, the first that holds them. */
export function foldBehind(
  behind: ContentsView['behind'],
  itemsBehind: readonly string[],
  { tree, items, places: at }: Pick<SourceFacts, 'tree' | 'items' | 'places'>,
): Folded[] {
  // By their places, since they may be nearly all of very many.
  const left = new Uint8Array(items.length);
  for (const place of at.found(itemsBehind)) left[place] = 1;
  const places = new Map<string, Folded>(
    behind.map(({ kind, id, title }) => {
      const key = tickId({ kind, nodeId: id });
      return [key, { key, title, word: kind, items: 0, ids: [] }];
    }),
  );
  for (const { tick, title } of holders(tree)) {
    const mine: number[] = [];
    for (const place of at.found(itemsIn(tree, tick))) {
      if (left[place] === 1) mine.push(place);
      left[place] = 0;
    }
    if (mine.length === 0) continue;
    const key = tickId(tick);
    const word = tick.kind;
    const called = title || (word === 'quiz' ? UNNAMED.quiz : UNNAMED.bank);
    const ids = mine.slice(0, MOST_BEHIND).map((place) => items[place]!.id);
    places.set(key, { key, title: called, word, items: mine.length, ids });
  }
  for (const { id } of items.filter((_, place) => left[place] === 1)) {
    const key = `item ${id}`;
    places.set(key, { key, title: null, word: 'item', items: 0, ids: [id] });
  }
  return [...places.values()];
}

/** Items that are ticked on their own, by what holds them, and those that nothing holds. */
function singlesIn({ tree }: SourceFacts, ticks: readonly Tick[]): Pick<ContentsShown, 'singles' | 'loose'> {
  const single = new Set(ticks.flatMap((t) => (t.kind === 'item' ? [t.nodeId] : [])));
  if (single.size === 0) return { singles: {}, loose: [] };
  const singles = holders(tree).flatMap(({ tick, items }) => {
    const mine = items.filter((id) => single.has(id));
    return mine.length > 0 ? [[tickId(tick), mine] as const] : [];
  });
  const held = new Set(singles.flatMap(([, ids]) => ids));
  return { singles: Object.fromEntries(singles), loose: [...single].filter((id) => !held.has(id)) };
}
