import { tickId, type ContentsView } from '@alforja/core';
import type { Thing } from './things';

type Behind = ContentsView['behind'][number];

/** Something that is not included, with those of its items that are not. */
export interface BehindPlace {
  readonly key: string;
  readonly title: string;
  /** What it is: a quiz, a bank, an item on its own … */
  readonly word: string;
  readonly items: readonly string[];
}

/** What is not included: items under the quiz or bank they stand in, the first that holds them. */
export function foldBehind(
  behind: readonly Behind[],
  things: ReadonlyMap<string, Thing>,
  itemName: (id: string) => string | undefined,
): BehindPlace[] {
  const holder = new Map<string, Thing>();
  for (const thing of things.values())
    for (const { id } of thing.items) if (!holder.has(id)) holder.set(id, thing);
  const places = new Map<string, { title: string; word: string; items: string[] }>();
  const place = (key: string, title: string, word: string): { items: string[] } => {
    const known = places.get(key) ?? { title, word, items: [] };
    places.set(key, known);
    return known;
  };
  for (const { kind, id, title } of behind) {
    if (kind !== 'item') {
      place(tickId({ kind, nodeId: id }), title, kind);
      continue;
    }
    const name = itemName(id) ?? title;
    const held = holder.get(id);
    if (held) place(tickId(held.tick), held.title, held.tick.kind).items.push(name);
    else place(`item ${id}`, name, 'item');
  }
  return [...places].map(([key, said]) => ({ key, ...said }));
}
