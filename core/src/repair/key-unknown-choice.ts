import { choicesOf } from '../model/options.ts';
import { foldName } from '../model/foldName.ts';
import { own } from '../model/own.ts';
import { optionText } from '../model/plainText.ts';
import { choiceIds } from '../scoring/probe.ts';
import { recognise } from '../scoring/recognise.ts';
import { itemOf, type Repairer } from './repairer.ts';

/**
 * The right choices that are there stay right. Where none is, the missing one is taken for a choice of the same
 * name in other capitals or signs, or of this text; else only a person can say what is right.
 */
export const keyUnknownChoice: Repairer<'key-unknown-choice'> = {
  code: 'key-unknown-choice',
  repair: (situation, finding) => {
    const item = itemOf(situation, finding);
    if (!item) return null;
    const { choice, response } = finding.params;
    const ids = choiceIds(item, response);
    const right = (own(recognise(item).key, response) ?? []).map(String).filter((id) => ids.includes(id));
    const named = (text: string): boolean => foldName(text) !== '' && foldName(text) === foldName(choice);
    const alike = choicesOf(item).filter((c) => ids.includes(c.id) && (named(c.id) || named(optionText(c))));
    const to = right.length > 0 ? right : alike.length === 1 ? [alike[0]!.id] : [];
    return to.length > 0 ? [{ op: 'key', node: item.id, response, to }] : null;
  },
};
