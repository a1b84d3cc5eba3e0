import { interactionFor } from '../model/options.ts';
import { own } from '../model/own.ts';
import { recognise } from '../scoring/recognise.ts';
import { itemOf, type Repairer } from './repairer.ts';

/** Several can be ticked where several are right; in a text, where only one fits, the first is right. */
export const keySeveralOnSingle: Repairer<'key-several-on-single'> = {
  code: 'key-several-on-single',
  repair: (situation, finding) => {
    const item = itemOf(situation, finding);
    if (!item) return null;
    const { response } = finding.params;
    const kind = interactionFor(item, response)?.kind;
    if (kind === 'choice' || kind === 'hottext' || kind === 'hotspot')
      return [{ op: 'answers', node: item.id, response, to: 'several' }];
    const [first] = own(recognise(item).key, response) ?? [];
    return first === undefined ? null : [{ op: 'key', node: item.id, response, to: [first] }];
  },
};
