import { interactionsOf } from '../model/visit.ts';
import { plain } from '../model/plainText.ts';
import { bestOf } from '../scoring/best.ts';
import { concrete } from '../scoring/concrete.ts';
import type { Check } from './check.ts';
import { own } from '../model/own.ts';

const LEAST = 30;
const TIMES = 2;

/**
 * One choice is far longer than every other, and it is the key (common practice: such choices are guessed).
 */
export const keyLongest: Check<'key-longest'> = {
  code: 'key-longest',
  severity: 'note',
  item: (item) =>
    interactionsOf(item).flatMap((interaction) => {
      if (interaction.kind !== 'choice' || interaction.maxChoices !== 1 || interaction.choices.length < 3)
        return [];
      const sizes = interaction.choices.map((c) => ({ id: c.id, size: plain(c.content).length }));
      const [first, second] = [...sizes].sort((a, b) => b.size - a.size);
      if (!first || !second || first.size < LEAST || first.size < TIMES * Math.max(1, second.size)) return [];
      const key = own(bestOf(concrete(item)).answers, interaction.responseId) ?? [];
      return key.includes(first.id) ? [{ length: first.size, next: second.size }] : [];
    }),
};
