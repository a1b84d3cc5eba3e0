import type { Item } from './holding.ts';

/** The highest raw score an item declares for itself; null where it says nothing. */
export const declaredMaximum = (
  item: Pick<Item, 'outcomes' | 'scoreOutcome' | 'pointsSources'>,
): number | null =>
  item.outcomes.find((o) => o.id === item.scoreOutcome)?.normalMaximum ??
  item.pointsSources.find((s) => s.source === 'declared')?.value ??
  null;
