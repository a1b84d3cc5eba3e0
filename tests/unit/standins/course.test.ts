import { expect } from 'chai';
import { change } from '../../../standins/change.ts';
import { outlineOf, removeThing } from '../../../standins/course.ts';
import { quayside } from '../../../standins/data.ts';
import { attach } from '../../../standins/heldRubrics.ts';
import { NO_HABITS } from '../../../standins/habits.ts';
import type { Course } from '../../../standins/types.ts';

const course = (id: string): Course =>
  structuredClone(quayside({ port: 0, folder: null }).courses.find((c) => c.id === id)!);
const thing = (of: Course, title: string) => outlineOf(of).things.find((t) => t.title.startsWith(title))!;

describe('a course of a simulated system', () => {
  it('is worth what one student can reach: own questions, and what is drawn', () => {
    // Twelve questions of 27 points with a half more for one (demo), 5 of 12 at 2 points, 4 of 15 at 1.5.
    const exam = thing(course('k-tides-s26'), 'Final exam');
    expect([exam.items, exam.points]).to.deep.equal([12 + 5 + 4, 27.5 + 10 + 6]);
    expect([exam.attempts, exam.timeLimitMinutes]).to.deep.equal([1, 90]);
    expect(exam.instructions).to.match(/^Work alone\. Tide tables/u);
  });

  it('takes settings, names and instructions from outside, and nothing for a thing it has not', () => {
    const of = course('k-tides-s26');
    const { id } = thing(of, 'Final exam');
    expect(change(of, id, { title: 'Exam', attempts: null, instructions: 'a < b', hidden: true })).to.equal(
      true,
    );
    const after = outlineOf(of).things.find((t) => t.id === id)!;
    expect(after).to.deep.include({ title: 'Exam', attempts: null, instructions: 'a < b', hidden: true });
    expect(after.timeLimitMinutes, 'what was not spoken of stays').to.equal(90);
    expect(change(of, 'nothing', { title: 'x' })).to.equal(false);
  });

  it('takes points of single questions, and a draw follows those of its pool', () => {
    const of = course('k-lights-a25');
    const practice = of.held.quizzes[0]!;
    const [first] = practice.sections.find((s) => s.draw)!.draw!.pool;
    change(of, practice.id, { points: [{ item: first!, points: 4 }] });
    expect(of.held.items.find((i) => i.id === first)!.points).to.equal(4);
    expect(thing(of, 'Lights practice').points).to.equal(6 * 4);
  });

  it('loses a thing with the questions, files and attachments that nothing else uses', () => {
    const of = course('k-coast-s26');
    const [rubric] = of.rubrics;
    const passage = thing(of, 'Passage plan');
    const [graded] = rubric!.attachedTo;
    expect(of.held.items.some((i) => i.id === graded)).to.equal(true);
    removeThing(of, passage.id);
    expect(of.held.items.some((i) => i.id === graded)).to.equal(false);
    expect(of.rubrics[0]!.attachedTo).to.deep.equal([]);
    expect(thing(of, 'Chart quiz').items).to.equal(4);
  });

  it('attaches a rubric to what it has, and says what it has not', () => {
    const of = course('k-coast-s26');
    const [rubric] = of.rubrics;
    const item = of.held.items[0]!.id;
    expect(attach(of, rubric!.id, [item, item], NO_HABITS)).to.deep.equal([]);
    expect(of.rubrics[0]!.attachedTo).to.deep.equal([item]);
    expect(attach(of, rubric!.id, ['nobody', item], NO_HABITS)).to.deep.equal(['nobody']);
    expect(of.rubrics[0]!.attachedTo).to.deep.equal([item]);
  });
});
