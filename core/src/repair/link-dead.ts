import { itemOf, type Repairer } from './repairer.ts';

/** The words stay and lead nowhere. */
export const linkDead: Repairer<'link-dead'> = {
  code: 'link-dead',
  repair: (situation, finding) => {
    const item = itemOf(situation, finding);
    return item && [{ op: 'file-drop', node: item.id, path: finding.params.href }];
  },
};
