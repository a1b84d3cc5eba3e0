import { bestOf } from '../scoring/best.ts';
import { concrete } from '../scoring/concrete.ts';
import { literalsOf } from '../scoring/literals.ts';
import { rawScore } from '../scoring/evaluate.ts';
import { near } from '../model/number.ts';
import type { Check } from './check.ts';
import { own } from '../model/own.ts';

/** A decimal that has to be met exactly: rounding the last figure otherwise costs the points. */
export const toleranceMissing: Check<'tolerance-missing'> = {
  code: 'tolerance-missing',
  severity: 'warning',
  item: (given) => {
    if (!given.responses.some((r) => r.baseType === 'float')) return [];
    const item = concrete(given);
    const best = bestOf(item);
    if (best.raw <= 0) return [];
    return item.responses.flatMap((response) => {
      const value = own(best.answers, response.id)?.[0];
      if (response.baseType !== 'float' || typeof value !== 'number' || Number.isInteger(value)) return [];
      const { edges, modes } = literalsOf(item).get(response.id)!;
      const places = /\.(\d+)/u.exec(String(value))?.[1]?.length ?? 0;
      const step = 10 ** -(places + 1);
      const full = (n: number): boolean =>
        near(rawScore(item, { ...best.answers, [response.id]: [n] }), best.raw);
      const open = edges.length > 0 && [...modes].some((m) => m !== 'exact');
      return open || full(value + step) || full(value - step) ? [] : [{ value }];
    });
  },
};
