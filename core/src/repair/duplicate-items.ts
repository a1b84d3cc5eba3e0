import type { Finding } from '../model/finding.ts';
import { itemOf, type Repairer, type Situation } from './repairer.ts';

/** One of two is enough; the earlier one stays. */
const keepOne = (situation: Situation, finding: Finding) => {
  const item = itemOf(situation, finding);
  return item && ([{ op: 'leave-out', node: item.id, kind: 'item' }] as const);
};

export const duplicateItems: Repairer<'duplicate-items'> = { code: 'duplicate-items', repair: keepOne };
export const nearDuplicateItems: Repairer<'near-duplicate-items'> = {
  code: 'near-duplicate-items',
  repair: keepOne,
};
