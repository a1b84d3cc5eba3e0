import { tidyNumber } from '../../model/number.ts';
import { bestOf } from '../../scoring/best.ts';
import { concrete } from '../../scoring/concrete.ts';
import { refused } from '../refusal.ts';
import type { ItemOperation } from './operation.ts';

/** The most an item gives; every part of it changes in proportion. */
export const POINTS: ItemOperation<'points'> = {
  on: 'item',
  now: (item) => item.points,
  wanted: (edit) => edit.to,
  apply: (item, { to }) => {
    if (to < 0) return refused('points-negative');
    const points = tidyNumber(to);
    // A maximum that its author declares in the units of the program stands; the unit is what changes.
    const sources = item.pointsSources.filter((s) => s.source === 'declared');
    const raw = item.points > 0 && item.scale > 0 ? item.points / item.scale : bestOf(concrete(item)).raw;
    if (raw > 0) return { ...item, points, scale: to / raw, pointsSources: sources };
    const weightless = item.outcomes.map((o) =>
      o.id === item.scoreOutcome && o.normalMaximum !== null ? { ...o, normalMaximum: points } : o,
    );
    return { ...item, points, outcomes: weightless, pointsSources: [] };
  },
};
