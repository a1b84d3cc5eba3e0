import { expect } from 'chai';
import {
  applyEdits,
  outlineOfPackage,
  outlineWithEdits,
  withOutline,
  type CourseOutline,
  type Edit,
  type Holding,
} from '@alforja/core';
import { assessmentXml, PLAIN } from '../../../demo/qti12.ts';
import { TIDAL_EXAM } from '../../../demo/items.ts';
import { read } from '../../support/read.ts';

/** What a course says of its things goes before the package; what was put right goes before both. */
describe('the outline of a course with edits', () => {
  let holding: Holding;
  let outline: CourseOutline;
  before(async () => {
    holding = await read(
      assessmentXml({ id: 'exam', title: 'Tidal exam', items: TIDAL_EXAM.slice(0, 3) }, PLAIN),
    );
    const week = { id: 'w', title: 'Week 1', refers: null };
    const inWeek = { id: 'r', title: 'Tidal exam', refers: 'exam', children: [] };
    const said = outlineOfPackage({ ...holding, outline: [{ ...week, children: [inWeek] }] });
    expect(said.things.length).to.equal(1);
    outline = {
      ...said,
      // The system calls it by an id of its own, and has set the time there.
      things: said.things.map((t) => ({ ...t, id: 'thing-7', timeLimitMinutes: 50, attempts: 1 })),
    };
  });
  const planned = (layer: readonly Edit[]) => {
    const { holding: edited, edits } = applyEdits(holding, layer);
    return withOutline(edited, outlineWithEdits(outline, edits, edited)).quizzes[0]!;
  };

  it('is the same where nothing of it was changed', () => {
    expect(outlineWithEdits(outline, [{ op: 'points', node: 'tide-01', to: 3 }], holding)).to.equal(outline);
    expect(planned([]).settings.timeLimitMinutes).to.equal(50);
  });

  it('says a new name, and stays with its quiz that it knew by the old one', () => {
    const now = planned([{ op: 'title', node: 'exam', kind: 'quiz', to: 'Tides, autumn' }]);
    expect([now.title, now.settings.timeLimitMinutes]).to.deep.equal(['Tides, autumn', 50]);
  });

  it('says settings that were put right, and leaves the others', () => {
    const now = planned([
      { op: 'title', node: 'exam', kind: 'quiz', to: 'Tides, autumn' },
      { op: 'settings', node: 'exam', to: { timeLimitMinutes: 20, instructions: 'Bring a chart.' } },
    ]);
    const { timeLimitMinutes, attempts, instructions } = now.settings;
    expect([timeLimitMinutes, attempts, instructions]).to.deep.equal([20, 1, 'Bring a chart.']);
  });

  it('does not rename what only goes by the same id', () => {
    const layer: Edit[] = [{ op: 'title', node: 'exam', kind: 'bank', to: 'No bank of this id' }];
    expect(outlineWithEdits(outline, layer, holding)).to.equal(outline);
  });
});
