import { itemOf, type Repairer } from './repairer.ts';

/** Of several statements the one that has been used stands, and alone. */
export const pointsDisagree: Repairer<'points-disagree'> = {
  code: 'points-disagree',
  repair: (situation, finding) => {
    const item = itemOf(situation, finding);
    return item && [{ op: 'points', node: item.id, to: item.points }];
  },
};
