import { commonest } from '../edit/keys.ts';
import { familiesOf } from '../families/families.ts';
import { near } from '../model/number.ts';
import type { Repairer } from './repairer.ts';

/** Every replica is worth what most of them are. */
export const familyPointsUnequal: Repairer<'family-points-unequal'> = {
  code: 'family-points-unequal',
  repair: ({ holding }, { where }) => {
    const family = familiesOf(holding).find((f) => f.items[0]!.id === where.node);
    if (!family) return null;
    const to = commonest(
      family.items.map((i) => i.points).filter((p) => p > 0),
      1,
    );
    return family.items
      .filter((i) => !near(i.points, to))
      .map(({ id: node }) => ({ op: 'points', node, to }) as const);
  },
};
