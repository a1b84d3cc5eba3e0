import type { Edit } from '../edit/schema.ts';
import { familiesOf } from '../families/families.ts';
import { quizOf, sectionName, type Repairer } from './repairer.ts';

/** All replicas of the exercise are in the pool. */
export const familyDrawPartial: Repairer<'family-draw-partial'> = {
  code: 'family-draw-partial',
  repair: (situation, finding) => {
    const quiz = quizOf(situation, finding);
    const { section: title, family: called } = finding.params;
    const family = familiesOf(situation.holding).find(
      (f) => f.title === called && quiz?.sections.some((s) => drawsFrom(s.draw?.pool, f.items)),
    );
    if (!quiz || !family) return null;
    return quiz.sections.flatMap((section, at): Edit[] =>
      section.title === title && section.draw?.pick === 1 && drawsFrom(section.draw.pool, family.items)
        ? [
            {
              op: 'draw',
              node: quiz.id,
              section: sectionName(quiz, at),
              to: { pool: family.items.map((i) => i.id) },
            },
          ]
        : [],
    );
  },
};

const drawsFrom = (pool: readonly string[] | undefined, items: readonly { readonly id: string }[]): boolean =>
  pool !== undefined && pool.length > 0 && pool.every((id) => items.some((i) => i.id === id));
