import { choiceIds } from '../scoring/probe.ts';
import { bestOf } from '../scoring/best.ts';
import { keyOf } from '../scoring/recognise.ts';
import type { Check } from './check.ts';

/** One answer can be ticked, but several are right: each gives full marks, or they are wanted together. */
export const keySeveralOnSingle: Check<'key-several-on-single'> = {
  code: 'key-several-on-single',
  severity: 'warning',
  item: (item) => {
    const singles = item.responses.filter(
      (r) => r.cardinality === 'single' && choiceIds(item, r.id).length > 0,
    );
    if (singles.length === 0) return [];
    const best = bestOf(item);
    return singles.flatMap((r) => {
      const right = Math.max(best.raw > 0 ? keyOf(item, r, best).length : 0, r.correct.length);
      return right > 1 ? [{ count: right, response: r.id }] : [];
    });
  },
};
