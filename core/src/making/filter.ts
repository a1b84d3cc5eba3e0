import { foldName } from '../model/foldName.ts';
import { near } from '../model/number.ts';
import type { ItemFilter } from './draft.ts';

/** What filters ask of an item; lists have it without the whole item. */
export interface ItemFacts {
  readonly item: string;
  /** As `kindOf` names it. */
  readonly kind: string;
  readonly category: string | null;
  readonly points: number;
  /** Whether it shows a picture or another file. */
  readonly picture: boolean;
  /** Whether a quiz sets or draws it. */
  readonly used: boolean;
  /** Title, text and category. */
  readonly text: string;
}

/** Whether an item is among those a filter leaves; made once, asked often. */
export function matches(filter: ItemFilter): (item: ItemFacts) => boolean {
  const kinds = new Set(filter.kinds);
  const categories = new Set(filter.categories);
  const words = foldName(filter.words).split(' ').filter(Boolean);
  return (item) => {
    if (kinds.size > 0 && !kinds.has(item.kind)) return false;
    if (categories.size > 0 && !categories.has(item.category ?? '')) return false;
    if (filter.points !== null && !near(filter.points, item.points)) return false;
    if (filter.used !== null && filter.used !== item.used) return false;
    if (filter.picture !== null && filter.picture !== item.picture) return false;
    if (words.length === 0) return true;
    const text = foldName(item.text);
    return words.every((w) => text.includes(w));
  };
}
