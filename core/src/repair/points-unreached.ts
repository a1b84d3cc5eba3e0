import { recognise } from '../scoring/recognise.ts';
import { itemOf, type Repairer } from './repairer.ts';

/** It is worth what its best answer gives: nobody scores otherwise. Where a program decides, only a person can tell. */
export const pointsUnreached: Repairer<'points-unreached'> = {
  code: 'points-unreached',
  repair: (situation, finding) => {
    const item = itemOf(situation, finding);
    if (!item) return null;
    const { shape, best } = recognise(item);
    const points = best.raw * item.scale;
    return shape.kind === 'program' || points <= 0 ? null : [{ op: 'points', node: item.id, to: points }];
  },
};
