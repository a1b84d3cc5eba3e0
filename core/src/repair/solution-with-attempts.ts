import { quizOf, type Repairer } from './repairer.ts';

/** One attempt, so that nobody is shown the solution before a further one. */
export const solutionWithAttempts: Repairer<'solution-with-attempts'> = {
  code: 'solution-with-attempts',
  repair: (situation, finding) => {
    const quiz = quizOf(situation, finding);
    return quiz && [{ op: 'settings', node: quiz.id, to: { attempts: 1 } }];
  },
};
