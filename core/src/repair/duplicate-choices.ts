import { recognise } from '../scoring/recognise.ts';
import { itemOf, type Repairer } from './repairer.ts';

/** The later of two choices that say the same goes, unless it is the right one of the two. */
export const duplicateChoices: Repairer<'duplicate-choices'> = {
  code: 'duplicate-choices',
  repair: (situation, finding) => {
    const item = itemOf(situation, finding);
    if (!item) return null;
    const { first, second } = finding.params;
    const right = new Set(Object.values(recognise(item).key).flat().map(String));
    const choice = right.has(second) && !right.has(first) ? first : second;
    return [{ op: 'choice-drop', node: item.id, choice }];
  },
};
