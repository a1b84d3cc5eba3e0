import { itemWeights } from '../../core/src/model/places.ts';
import type { Item, Quiz } from '../../core/src/index.ts';
import { priced, worthOf } from '../../core/src/reading/settle.ts';

/** Gives every item its points, as reading does. */
export function settlePoints(items: readonly Item[], quizzes: readonly Quiz[]): Item[] {
  const weights = itemWeights(quizzes);
  return items.map((item) => ({
    ...item,
    ...priced(
      worthOf(item, () => undefined),
      weights.get(item.id) ?? 1,
    ),
  }));
}
