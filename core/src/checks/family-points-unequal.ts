import { familiesOf } from '../families/families.ts';
import { plainNumber, tidyNumber } from '../model/number.ts';
import type { Check } from './check.ts';

/** Replicas of one exercise that are not worth the same. */
export const familyPointsUnequal: Check<'family-points-unequal'> = {
  code: 'family-points-unequal',
  severity: 'warning',
  whole: (holding) =>
    familiesOf(holding).flatMap(({ title, items }) => {
      const points = [...new Set(items.map((i) => tidyNumber(i.points)))].sort((a, b) => a - b);
      if (points.length < 2) return [];
      const said = points.map(plainNumber).join(', ');
      return [
        { node: items[0]!.id, path: items[0]!.origin?.path ?? null, params: { family: title, points: said } },
      ];
    }),
};
