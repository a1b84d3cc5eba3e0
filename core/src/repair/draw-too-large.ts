import type { Edit } from '../edit/schema.ts';
import { quizOf, sectionName, type Repairer } from './repairer.ts';

/** As many are drawn as there are. */
export const drawTooLarge: Repairer<'draw-too-large'> = {
  code: 'draw-too-large',
  repair: (situation, finding) => {
    const { pick, of, section } = finding.params;
    const quiz = quizOf(situation, finding);
    const edits = (quiz?.sections ?? []).flatMap(({ title, draw }, at): Edit[] =>
      draw && title === section && draw.pick === pick && draw.pool.length === of && of > 0
        ? [{ op: 'draw', node: quiz!.id, section: sectionName(quiz!, at), to: { pick: of } }]
        : [],
    );
    return edits.length > 0 ? edits : null;
  },
};
