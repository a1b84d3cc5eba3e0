import { quizOf, type Repairer } from './repairer.ts';

/** Dates the wrong way round change places; of two that are the same, the closing one goes. */
export const datesImpossible: Repairer<'dates-impossible'> = {
  code: 'dates-impossible',
  repair: (situation, finding) => {
    const quiz = quizOf(situation, finding);
    const { opens, closes } = quiz?.settings ?? {};
    if (!quiz || !opens || !closes) return null;
    const same = Date.parse(opens) === Date.parse(closes);
    const to = same ? { closes: null } : { opens: closes, closes: opens };
    return [{ op: 'settings', node: quiz.id, to }];
  },
};
