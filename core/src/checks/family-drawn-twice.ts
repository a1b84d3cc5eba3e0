import { familiesOf, type Family } from '../families/families.ts';
import type { Check } from './check.ts';

/** A draw by which one student can be set two replicas of one exercise. */
export const familyDrawnTwice: Check<'family-drawn-twice'> = {
  code: 'family-drawn-twice',
  severity: 'note',
  whole: (holding) => {
    const of = new Map(familiesOf(holding).flatMap((f) => f.items.map((i) => [i.id, f] as const)));
    if (of.size === 0) return [];
    return holding.quizzes.flatMap((quiz) =>
      quiz.sections.flatMap((section) => {
        const { draw } = section;
        if (!draw || draw.pick < 2) return [];
        const counts = new Map<Family, number>();
        for (const id of draw.pool) {
          const family = of.get(id);
          if (family) counts.set(family, (counts.get(family) ?? 0) + 1);
        }
        const twice = [...counts].filter(([, n]) => n > 1).map(([f]) => f);
        if (twice.length === 0) return [];
        const params = { section: section.title, family: twice[0]!.title, count: twice.length };
        return [{ node: quiz.id, path: quiz.origin?.path ?? null, params }];
      }),
    );
  },
};
