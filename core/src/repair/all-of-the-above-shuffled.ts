import { cut } from '../model/cut.ts';
import { namesLetters, speaksOfOthers } from '../checks/all-of-the-above-shuffled.ts';
import { plain } from '../model/plainText.ts';
import { interactionsOf } from '../model/visit.ts';
import type { Edit } from '../edit/schema.ts';
import { itemOf, type Repairer } from './repairer.ts';

/** "All of the above" stays in its place; where choices name others by letters, none of them can move. */
export const allOfTheAboveShuffled: Repairer<'all-of-the-above-shuffled'> = {
  code: 'all-of-the-above-shuffled',
  repair: (situation, finding) => {
    const item = itemOf(situation, finding);
    if (!item) return null;
    const edits = interactionsOf(item).flatMap((interaction): Edit[] => {
      if (interaction.kind !== 'choice' || !interaction.shuffle) return [];
      const loose = interaction.choices.filter((c) => !c.fixed);
      const about = loose.filter((c) => cut(plain(c.content), 80) === finding.params.text);
      if (about.some((c) => namesLetters(plain(c.content))))
        return [{ op: 'shuffle', node: item.id, response: interaction.responseId, to: false }];
      return about
        .filter((c) => speaksOfOthers(plain(c.content)))
        .map((c): Edit => ({ op: 'choice-fixed', node: item.id, choice: c.id, to: true }));
    });
    return edits.length > 0 ? edits : null;
  },
};
