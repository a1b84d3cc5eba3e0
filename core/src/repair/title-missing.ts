import { quizItems } from '../model/quizzes.ts';
import type { Repairer } from './repairer.ts';
import { sharedCategory, spelledOut, titled } from './titles.ts';

/** A name from the category that all of it shares, else from the file, spelled out. */
export const titleMissing: Repairer<'title-missing'> = {
  code: 'title-missing',
  repair: (situation, finding) => {
    const { node } = finding.where;
    if (node === null) return null;
    const bank = situation.banks.get(node);
    if (bank)
      return [titled(node, 'bank', sharedCategory(situation, bank.items) ?? spelledOut(finding.params.used))];
    const quiz = situation.quizzes.get(node);
    return quiz
      ? [titled(node, 'quiz', sharedCategory(situation, quizItems(quiz)) ?? spelledOut(finding.params.used))]
      : null;
  },
};
