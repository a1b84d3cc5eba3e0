import { commonest } from '../edit/keys.ts';
import type { Edit } from '../edit/schema.ts';
import type { Draw } from '../model/holding.ts';
import { near } from '../model/number.ts';
import { quizOf, sectionName, type Repairer, type Situation } from './repairer.ts';

/** Every item of the draw is worth the same: what the draw gives for each, where that is one of their points. */
export const drawPointsUnequal: Repairer<'draw-points-unequal'> = {
  code: 'draw-points-unequal',
  repair: (situation, finding) => {
    const quiz = quizOf(situation, finding);
    const edits = (quiz?.sections ?? []).flatMap(({ title, draw }, at): Edit[] => {
      if (!draw || title !== finding.params.section) return [];
      const to = evenPoints(situation, draw);
      const others = draw.pool.filter((id) => !near(situation.items.get(id)?.points ?? to, to));
      if (others.length === 0) return [];
      return [
        ...others.map((node): Edit => ({ op: 'points', node, to })),
        { op: 'draw', node: quiz!.id, section: sectionName(quiz!, at), to: { pointsEach: to } },
      ];
    });
    return edits.length > 0 ? edits : null;
  },
};

function evenPoints(situation: Situation, { pool, pointsEach }: Draw): number {
  const worth = pool.map((id) => situation.items.get(id)?.points ?? 0).filter((p) => p > 0);
  const whole = pointsEach > 0 && near(pointsEach * 4, Math.round(pointsEach * 4));
  return whole ? pointsEach : commonest(worth, 1);
}
