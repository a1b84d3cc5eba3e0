import type { Check } from './check.ts';

/** Items of one draw must be worth the same, or students sit different exams (common practice). */
export const drawPointsUnequal: Check<'draw-points-unequal'> = {
  code: 'draw-points-unequal',
  severity: 'warning',
  whole: ({ quizzes, items }) => {
    const points = new Map(items.map((i) => [i.id, i.points]));
    return quizzes.flatMap((quiz) =>
      quiz.sections.flatMap(({ title, draw }) => {
        const worth = [...new Set((draw?.pool ?? []).map((id) => points.get(id) ?? 0))].sort((a, b) => a - b);
        if (!draw || worth.length < 2) return [];
        return [
          {
            node: quiz.id,
            path: quiz.origin?.path ?? null,
            params: { points: worth.join(', '), section: title },
          },
        ];
      }),
    );
  },
};
