import { expect } from 'chai';
import {
  applyEdits,
  make,
  sheetOfBoth,
  SHEET_WAYS,
  simulate,
  type Edit,
  type Holding,
  type SheetWay,
} from '@alforja/core';
import { question } from '../../support/making.ts';

/** One candidate on both sides: the sheet of a quiz that was moved. */

const items = Array.from({ length: 8 }, (_, n) => question(`q${n}`, { points: 1 + (n % 2) }));
const section = (id: string, more: Partial<Holding['quizzes'][number]['sections'][number]>) => ({
  id,
  title: id,
  shuffle: false,
  items: [],
  draw: null,
  instructions: null,
  ...more,
});
const exam = make.holding({
  items,
  quizzes: [
    {
      id: 'exam',
      title: 'Exam',
      settings: make.NO_SETTINGS,
      sections: [
        section('fixed', { items: ['q0', 'q1', 'q2'].map((item) => ({ item, weight: 1 })) }),
        section('drawn', {
          draw: {
            pick: 2,
            bank: null,
            pool: ['q3', 'q4', 'q5', 'q6', 'q7'],
            weights: null,
            pointsEach: 1.5,
            withReplacement: false,
          },
        }),
      ],
      test: null,
      metadata: [],
      origin: null,
    },
  ],
});
const same = new Map(items.map((i) => [i.id, i.id]));
const sheet = (arrived: Holding, seed: string, way: SheetWay, partners: ReadonlyMap<string, string> = same) =>
  sheetOfBoth(
    { holding: exam, quiz: exam.quizzes[0]! },
    { holding: arrived, quiz: arrived.quizzes[0]! },
    partners,
    { seed, way },
  );
const edited = (...edits: Edit[]): Holding => applyEdits(exam, edits).holding;

describe('one candidate’s sheet of both sides', () => {
  for (const way of SHEET_WAYS)
    it(`is the same where nothing differs: ${way}`, () => {
      for (const seed of ['1', 'Seat 7', '潮']) {
        const { totals, rows } = sheet(exam, seed, way);
        expect(rows).to.have.length(5);
        expect(rows.some((r) => r.differs)).to.equal(false);
        expect(totals.arrived).to.equal(totals.source);
        const sum = rows.reduce((n, r) => n + r.scores.source, 0);
        expect(totals.source).to.equal(sum);
        // 1 + 2 + 1 for the fixed ones, and twice what the draw says.
        if (way === 'right') expect(sum).to.equal(4 + 2 * 1.5);
        if (way === 'wrong' || way === 'blank') expect(sum).to.equal(0);
        if (way === 'blank') expect(rows.every((r) => r.answer.length === 0)).to.equal(true);
      }
    });

  it('puts what differs first, by how much', () => {
    const changed = edited(
      { op: 'key', node: 'q2', to: ['B'] } as Edit,
      { op: 'points', node: 'q1', to: 7 } as Edit,
    );
    const { totals, rows } = sheet(changed, '1', 'right');
    expect(rows.slice(0, 2).map((r) => [r.source, r.scores.source, r.scores.arrived])).to.deep.equal([
      ['q1', 2, 7],
      ['q2', 1, 0],
    ]);
    expect(rows.slice(2).every((r) => !r.differs)).to.equal(true);
    expect(totals.arrived - totals.source).to.equal(4);
  });

  it('says what did not arrive, and sets what was drawn on this side on the other, too', () => {
    const without = edited({ op: 'leave-out', node: 'q0', kind: 'item' } as Edit);
    const partners = new Map([...same].filter(([id]) => id !== 'q0'));
    const { rows } = sheet(without, '3', 'right', partners);
    expect(rows[0]).to.deep.include({ source: 'q0', arrived: null, differs: true });
    expect(rows[0]!.scores).to.deep.equal({ source: 1, arrived: null });
    expect(rows.slice(1).every((r) => r.scores.arrived === r.scores.source)).to.equal(true);
  });

  it('names the same items as a thousand candidates do', () => {
    const changed = edited({ op: 'key', node: 'q2', to: ['B'] } as Edit);
    const sides = [
      { holding: exam, quiz: exam.quizzes[0]! },
      { holding: changed, quiz: changed.quizzes[0]! },
    ] as const;
    expect(simulate(...sides, same).items.map((i) => i.source)).to.deep.equal(['q2']);
  });
});
