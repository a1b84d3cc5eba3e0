import { familiesOf } from '../families/families.ts';
import type { Check } from './check.ts';

/** A draw that chooses one replica of an exercise, and lacks some of them. */
export const familyDrawPartial: Check<'family-draw-partial'> = {
  code: 'family-draw-partial',
  severity: 'warning',
  whole: (holding) => {
    const families = familiesOf(holding);
    if (families.length === 0) return [];
    return holding.quizzes.flatMap((quiz) =>
      quiz.sections.flatMap((section) => {
        const { draw } = section;
        if (draw?.pick !== 1) return [];
        const pool = new Set(draw.pool);
        const family = families.find((f) => draw.pool.length > 1 && f.items.some((i) => pool.has(i.id)));
        if (!family || !draw.pool.every((id) => family.items.some((i) => i.id === id))) return [];
        const lacking = family.items.length - pool.size;
        if (lacking <= 0) return [];
        const params = { section: section.title, family: family.title, lacking };
        return [{ node: quiz.id, path: quiz.origin?.path ?? null, params }];
      }),
    );
  },
};
