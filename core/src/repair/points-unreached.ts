import { bestOf } from '../scoring/best.ts';
import { concrete } from '../scoring/concrete.ts';
import { itemOf, type Repairer } from './repairer.ts';

/**
 * It states what its best answer gives, which is what it is worth already: nobody scores otherwise. Where no answer
 * scores, or there may be a better one that was not found, only a person can tell.
 */
export const pointsUnreached: Repairer<'points-unreached'> = {
  code: 'points-unreached',
  repair: (situation, finding) => {
    const item = itemOf(situation, finding);
    if (!item?.pointsExact || bestOf(concrete(item)).raw <= 0) return null;
    return [{ op: 'points', node: item.id, to: item.points }];
  },
};
