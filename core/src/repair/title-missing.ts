import { quizItems } from '../model/quizzes.ts';
import type { Repairer } from './repairer.ts';
import { sharedCategory, spelledOut, titled } from './titles.ts';

/**
 * A name from the category that all of it shares, else from the file, spelled out. Where that is what it is called
 * already, there is nothing better: some formats have no place for the title of a bank but its file's name.
 */
export const titleMissing: Repairer<'title-missing'> = {
  code: 'title-missing',
  repair: (situation, finding) => {
    const { node } = finding.where;
    if (node === null) return null;
    const bank = situation.banks.get(node);
    const quiz = situation.quizzes.get(node);
    const named = bank ?? quiz;
    if (!named) return null;
    const members = bank ? bank.items : quizItems(quiz!);
    const to = sharedCategory(situation, members) ?? spelledOut(finding.params.used);
    return to === named.title ? null : [titled(node, bank ? 'bank' : 'quiz', to)];
  },
};
