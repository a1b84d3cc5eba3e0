import { near, plainNumber } from '../model/number.ts';
import { bestOf } from '../scoring/best.ts';
import { concrete } from '../scoring/concrete.ts';
import type { Check } from './check.ts';

/** The best answer scores less than what the item says it is worth: parts that do not add up. */
export const maximumBelowPoints: Check<'maximum-below-points'> = {
  code: 'maximum-below-points',
  severity: 'warning',
  item: (item) => {
    const outcome = item.outcomes.find((o) => o.id === item.scoreOutcome);
    const stated =
      outcome?.normalMaximum ?? item.pointsSources.find((s) => s.source === 'declared')?.value ?? null;
    if (stated === null || item.scoring.rules.length === 0 || item.scoring.untranslated.length > 0) return [];
    const { raw } = bestOf(concrete(item));
    return raw > 0 && raw < stated && !near(raw, stated)
      ? [{ found: plainNumber(raw), stated: plainNumber(stated) }]
      : [];
  },
};
