import { expect } from 'chai';
import {
  EXCEPTIONS,
  exceptionOf,
  kindsOf,
  pairLines,
  readyPairs,
  takenTwice,
} from '../../../src/lib/ui/batches/pairs.ts';
import type { CourseListing } from '../../../src/lib/shared/courses.ts';

const course = (id: string): CourseListing =>
  ({
    id,
    code: 'NAV',
    title: id,
    section: '01',
    quizzes: 1,
    banks: 0,
    rubrics: 0,
    links: 0,
    items: 3,
  }) as CourseListing;
const proposed = ['a', 'b', 'c'].map((id) => ({ source: course(id), dest: `new-${id}` }));

describe('the pairs of a batch', () => {
  it('are as proposed, else as a table says, and by hand before both', () => {
    expect(pairLines(proposed, null, {}).map((l) => l.dest)).to.deep.equal(['new-a', 'new-b', 'new-c']);
    const given = [{ source: 'a', dest: 'other' }];
    const lines = pairLines(proposed, given, { b: { dest: 'mine' } });
    expect(lines.map((l) => l.dest)).to.deep.equal(['other', 'mine', '']);
    expect(lines[0]!.name).to.equal('NAV a, section 01');
    expect(lines[0]!.holds).to.match(/1 quiz.*3 questions/u);
  });

  it('go where they have a destination and something to bring', () => {
    const lines = pairLines(proposed, null, { a: { dest: '' }, b: { kinds: [] } });
    expect(readyPairs(lines).map((l) => l.source)).to.deep.equal(['c']);
  });

  it('say where two go to one course; courses left out do not count', () => {
    const lines = pairLines(proposed, null, { a: { dest: 'x' }, b: { dest: 'x' }, c: { dest: '' } });
    expect([...takenTwice(lines)]).to.deep.equal(['x']);
    expect(takenTwice(pairLines(proposed, [], {})).size).to.equal(0);
  });

  it('have exceptions that are the same from the list and back', () => {
    for (const { value } of EXCEPTIONS) expect(exceptionOf({ kinds: kindsOf(value) })).to.equal(value);
  });
});
