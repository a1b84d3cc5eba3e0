import { interactionsOf } from '../model/visit.ts';
import type { Check } from './check.ts';

/** An item that asks something and is worth nothing, or less. */
export const pointsNotPositive: Check<'points-not-positive'> = {
  code: 'points-not-positive',
  severity: 'warning',
  item: (item) =>
    interactionsOf(item).some((i) => i.kind !== 'media' && i.kind !== 'endAttempt') && item.points <= 0
      ? [{ points: item.points }]
      : [],
};
