import { picturesOf } from '../model/options.ts';
import { interactionsOf } from '../model/visit.ts';
import { itemOf, type Repairer } from './repairer.ts';

/** The reference goes. A picture that an answer is given on cannot: there a person has to choose another. */
export const fileMissing: Repairer<'file-missing'> = {
  code: 'file-missing',
  repair: (situation, finding) => {
    const item = itemOf(situation, finding);
    const { path } = finding.params;
    if (!item?.files.some((f) => f.path === path && !f.present)) return null;
    const needed = interactionsOf(item).some((i) => picturesOf(i).some((p) => p.src === path));
    return needed ? null : [{ op: 'file-drop', node: item.id, path }];
  },
};
