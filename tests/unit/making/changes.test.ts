import { expect } from 'chai';
import fc from 'fast-check';
import { changed, DraftChange, NO_FILTER, QuizDraft, type DraftDraw } from '@alforja/core';
import { emptyQuiz } from '../../support/making.ts';

const items = (...ids: string[]) => ids.map((item) => ({ place: 'p', item }));
const added = (...ids: string[]): QuizDraft =>
  changed(emptyQuiz(), { do: 'add', section: 'section-1', items: items(...ids) });
const order = (draft: QuizDraft): string[][] => draft.sections.map((s) => s.items.map((i) => i.item));
const draw = (more: Partial<DraftDraw> = {}): DraftDraw => ({
  pick: 1,
  pointsEach: null,
  pool: { from: [{ place: 'p', bank: 'b', filter: NO_FILTER }], named: items('x'), without: [] },
  ...more,
});

describe('changes of a quiz that is being made', () => {
  it('put items where they are wanted, each once', () => {
    const draft = changed(added('a', 'b'), {
      do: 'add',
      section: 'section-1',
      items: items('c', 'a'),
      at: 1,
    });
    expect(order(draft)).to.deep.equal([['a', 'c', 'b']]);
  });

  it('move items within sections and between them', () => {
    const two = changed(added('a', 'b', 'c'), { do: 'section-add', title: 'Next', draw: null });
    expect(order(changed(two, { do: 'move', key: 'a', section: 'section-1', at: 2 }))[0]).to.deep.equal([
      'b',
      'c',
      'a',
    ]);
    expect(order(changed(two, { do: 'move', key: 'c', section: 'section-2', at: 0 }))).to.deep.equal([
      ['a', 'b'],
      ['c'],
    ]);
    expect(changed(two, { do: 'move', key: 'c', section: 'nowhere', at: 0 })).to.equal(two);
  });

  it('order sections, name them, and take them out', () => {
    const two = changed(added('a'), { do: 'section-add', title: 'Next', draw: draw() });
    const moved = changed(two, { do: 'section-move', section: 'section-2', at: 0 });
    expect(moved.sections.map((s) => s.id)).to.deep.equal(['section-2', 'section-1']);
    expect(changed(moved, { do: 'section-drop', section: 'section-1' }).sections).to.have.length(1);
    const named = changed(two, {
      do: 'section',
      section: 'section-2',
      to: { title: 'Marks', shuffle: true },
    });
    expect(named.sections[1]).to.deep.include({ title: 'Marks', shuffle: true, instructions: '' });
  });

  it('leave items out of a draw: those named go, others are kept out of their bank', () => {
    const drawn = changed(emptyQuiz(), { do: 'section-add', title: '', draw: draw() });
    const left = changed(drawn, { do: 'without', section: 'section-2', items: items('x', 'y') });
    expect(left.sections[1]!.draw!.pool).to.deep.include({ named: [], without: items('x', 'y') });
    const again = changed(left, { do: 'without', section: 'section-2', items: items('y') });
    expect(again.sections[1]!.draw!.pool.without).to.have.length(2);
  });

  it('touch only the settings they name', () => {
    const timed = changed(emptyQuiz(), { do: 'settings', to: { timeLimitMinutes: 30 } });
    expect(changed(timed, { do: 'settings', to: { passMark: 5 } }).settings).to.deep.equal({
      instructions: '',
      timeLimitMinutes: 30,
      attempts: 1,
      passMark: 5,
    });
  });

  it('leave a draft that can be kept, whatever is done in whatever order', () => {
    const id = fc.constantFrom('section-1', 'section-2', 'section-3', 'nowhere');
    const key = fc.constantFrom('a', 'b', 'c', 'd');
    const place = fc.nat({ max: 5 });
    const change = fc.oneof(
      fc.record({
        do: fc.constant('add'),
        section: id,
        items: fc.array(key.map((item) => ({ place: 'p', item }))),
        at: place,
      }),
      fc.record({ do: fc.constant('remove'), keys: fc.array(key, { maxLength: 2 }) }),
      fc.record({ do: fc.constant('move'), key, section: id, at: place }),
      fc.record({
        do: fc.constant('points'),
        keys: fc.array(key, { maxLength: 2 }),
        to: fc.option(fc.nat({ max: 9 })),
      }),
      fc.record({
        do: fc.constant('section-add'),
        title: fc.string({ maxLength: 5 }),
        draw: fc.constantFrom(null, draw()),
      }),
      fc.record({ do: fc.constant('section-move'), section: id, at: place }),
      fc.record({ do: fc.constant('section-drop'), section: id }),
      fc.record({ do: fc.constant('draw'), section: id, to: fc.record({ pick: fc.nat({ max: 9 }) }) }),
      fc.record({
        do: fc.constant('without'),
        section: id,
        items: fc.array(key.map((item) => ({ place: 'p', item }))),
      }),
    );
    fc.assert(
      fc.property(fc.array(change, { maxLength: 20 }), (all) => {
        const before = emptyQuiz();
        const draft = all.reduce((d, c) => changed(d, DraftChange.parse(c)), before);
        expect(QuizDraft.parse(draft)).to.deep.equal(draft);
        const keys = draft.sections.flatMap((s) => s.items.map((i) => i.key));
        expect(new Set(keys).size).to.equal(keys.length);
        const sections = draft.sections.map((s) => s.id);
        expect(new Set(sections).size).to.equal(sections.length);
        expect(before).to.deep.equal(emptyQuiz());
      }),
    );
  });
});
