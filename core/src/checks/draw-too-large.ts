import type { Check } from './check.ts';

/** A draw that asks for more items than its pool has. */
export const drawTooLarge: Check<'draw-too-large'> = {
  code: 'draw-too-large',
  severity: 'error',
  whole: ({ quizzes }) =>
    quizzes.flatMap((quiz) =>
      quiz.sections.flatMap(({ title, draw }) =>
        draw && !draw.withReplacement && draw.pick > draw.pool.length
          ? [
              {
                node: quiz.id,
                path: quiz.origin?.path ?? null,
                params: { pick: draw.pick, of: draw.pool.length, section: title },
              },
            ]
          : [],
      ),
    ),
};
