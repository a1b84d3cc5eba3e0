import { commonest } from '../edit/keys.ts';
import { itemOf, type Repairer } from './repairer.ts';

/** As many points as most of the items beside it have; one where none has any. */
export const pointsNotPositive: Repairer<'points-not-positive'> = {
  code: 'points-not-positive',
  repair: (situation, finding) => {
    const item = itemOf(situation, finding);
    if (!item) return null;
    const points = situation.beside(item.id).map((i) => i.points);
    return [
      {
        op: 'points',
        node: item.id,
        to: commonest(
          points.filter((p) => p > 0),
          1,
        ),
      },
    ];
  },
};
