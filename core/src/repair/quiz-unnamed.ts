import { quizItems } from '../model/quizzes.ts';
import { quizOf, type Repairer } from './repairer.ts';
import { sharedCategory, spelledOut, titled } from './titles.ts';

/** A name from the category that all of it shares, else from its only section, the package or the file. */
export const quizUnnamed: Repairer<'quiz-unnamed'> = {
  code: 'quiz-unnamed',
  repair: (situation, finding) => {
    const quiz = quizOf(situation, finding);
    if (!quiz) return null;
    const { holding } = situation;
    const only = quiz.sections.length === 1 ? quiz.sections[0]!.title : '';
    const to =
      sharedCategory(situation, quizItems(quiz)) ??
      (only || holding.title || spelledOut(holding.source.name) || 'Quiz');
    return [titled(quiz.id, 'quiz', to)];
  },
};
