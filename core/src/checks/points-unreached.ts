import { near, plainNumber } from '../model/number.ts';
import { declaredMaximum } from '../model/points.ts';
import { bestOf } from '../scoring/best.ts';
import { concrete } from '../scoring/concrete.ts';
import { markedByHand } from '../scoring/recognise.ts';
import type { Check } from './check.ts';

/** No answer found by running scores what the item declares as its maximum: parts that do not add up. */
export const pointsUnreached: Check<'points-unreached'> = {
  code: 'points-unreached',
  severity: 'warning',
  item: (item) => {
    const stated = declaredMaximum(item);
    if (stated === null || item.scoring.rules.length === 0 || item.scoring.untranslated.length > 0) return [];
    const { raw } = bestOf(concrete(item));
    if (raw <= 0 && markedByHand(item)) return [];
    return raw < stated && !near(raw, stated)
      ? [{ found: plainNumber(raw), stated: plainNumber(stated) }]
      : [];
  },
};
