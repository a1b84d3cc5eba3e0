import type { Check } from './check.ts';

/** Opening and closing at the same moment, or closing first: such a quiz can never be opened. */
export const datesImpossible: Check<'dates-impossible'> = {
  code: 'dates-impossible',
  severity: 'error',
  whole: ({ quizzes }) =>
    quizzes.flatMap(({ id, origin, settings: { opens, closes } }) =>
      opens !== null && closes !== null && Date.parse(closes) <= Date.parse(opens)
        ? [{ node: id, path: origin?.path ?? null, params: { opens, closes } }]
        : [],
    ),
};
