import { cut } from '../model/cut.ts';
import type { Choice } from '../model/content.ts';
import { interactionsOf, walk } from '../model/visit.ts';
import { plain } from '../model/plainText.ts';
import type { Check } from './check.ts';

/** Two choices that say the same. Pictures and formulas count by what they show. */
export const duplicateChoices: Check<'duplicate-choices'> = {
  code: 'duplicate-choices',
  severity: 'warning',
  item: (item) =>
    interactionsOf(item).flatMap((interaction) => {
      if (interaction.kind !== 'choice') return [];
      const seen = new Map<string, string>();
      return interaction.choices.flatMap((choice) => {
        const shown = shownBy(choice);
        if (shown === '') return [];
        const first = seen.get(shown);
        if (first === undefined) seen.set(shown, choice.id);
        return first === undefined
          ? []
          : [{ first, second: choice.id, text: cut(plain(choice.content), 80) }];
      });
    }),
};

function shownBy(choice: Choice): string {
  const media: string[] = [];
  walk(choice.content, (node) => {
    if (node.kind === 'element' && node.attrs['src']) media.push(node.attrs['src']);
    if (node.kind === 'element' && (node.name === 'sub' || node.name === 'sup')) media.push(node.name);
    if (node.kind === 'math') media.push(JSON.stringify(node.children));
  });
  return [plain(choice.content).toLowerCase(), ...media].join('|').replace(/^\|+/u, '');
}
