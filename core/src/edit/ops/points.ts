import type { Item } from '../../model/holding.ts';
import { near, tidyNumber } from '../../model/number.ts';
import { declaredMaximum } from '../../model/points.ts';
import { bestOf } from '../../scoring/best.ts';
import { concrete } from '../../scoring/concrete.ts';
import { refused } from '../refusal.ts';
import type { ItemOperation } from './operation.ts';

/** The most an item gives; every part of it changes in proportion. */
export const POINTS: ItemOperation<'points'> = {
  on: 'item',
  now: (item) => item.points,
  // Worth these points already, but stating more than anybody can reach: not done yet.
  wanted: (edit, item) => (unreached(item) === null ? edit.to : undefined),
  apply: (item, { to }) => {
    if (to < 0) return refused('points-negative');
    const points = tidyNumber(to);
    // A maximum that its author declares in the units of the program stands; the unit is what changes.
    const sources = item.pointsSources.filter((s) => s.source === 'declared');
    const reached = unreached(item);
    if (reached !== null) return { ...settled(item, reached), points, scale: to / reached };
    const raw = item.points > 0 && item.scale > 0 ? item.points / item.scale : bestOf(concrete(item)).raw;
    if (raw > 0) return { ...item, points, scale: to / raw, pointsSources: sources };
    return { ...item, points, outcomes: stating(item, points), pointsSources: [] };
  },
};

/** What the best answer gives, where that is known and the item declares more; null where it is reached. */
function unreached(item: Item): number | null {
  const stated = declaredMaximum(item);
  if (stated === null || !item.pointsExact || item.points <= 0 || item.scale <= 0) return null;
  const raw = item.points / item.scale;
  return raw < stated && !near(raw, stated) ? raw : null;
}

/** The outcomes with another maximum of the score, where one is stated. */
const stating = (item: Item, maximum: number): Item['outcomes'] =>
  item.outcomes.map((o) =>
    o.id === item.scoreOutcome && o.normalMaximum !== null ? { ...o, normalMaximum: maximum } : o,
  );

/** The item with what it really gives as its maximum. */
const settled = (item: Item, raw: number): Item => ({
  ...item,
  outcomes: stating(item, raw),
  pointsSources: item.pointsSources.map((s) => (s.source === 'declared' ? { ...s, value: raw } : s)),
});
