import { expect } from 'chai';
import fc from 'fast-check';
import {
  carriedOut,
  changed,
  matches,
  NO_FILTER,
  planPlaces,
  poolItems,
  type PlanCell,
  type QuizDraft,
} from '@alforja/core';
import { emptyQuiz, factsOf, lookedAt, place, question, shelvesOf } from '../../support/making.ts';

const BANK = { place: 'p', bank: 'bank' };
const CATEGORIES = ['Tides', 'Lights', ''] as const;
const items = Array.from({ length: 12 }, (_, n) =>
  question(`q${n}`, {
    points: 1 + (n % 3),
    category: CATEGORIES[n % 3] || null,
    text: `Question ${'abcdefghijkl'[n]}`,
  }),
);
const places = { p: { ...place(items), used: ['q0', 'q3'] } };
const planned = (cells: readonly PlanCell[]): QuizDraft =>
  changed(emptyQuiz(), { do: 'plan', to: { from: [BANK], cells: [...cells] } });
const carry = (draft: QuizDraft, as: 'draws' | 'items', random = () => 0.5): QuizDraft =>
  carriedOut(draft, as, shelvesOf(places), (c) => `${c.category}/${c.kind}`, random);
const cell = (category: string, count: number, points = 2): PlanCell => ({
  category,
  kind: 'choice',
  count,
  points,
});

describe('a quiz by plan', () => {
  it('knows what its banks have of each category and kind', () => {
    const there = planPlaces(shelvesOf(places), [BANK, BANK]);
    expect(there.map((p) => [p.category, p.kind, p.items.length])).to.deep.equal(
      CATEGORIES.map((c) => [c, 'choice', 4]),
    );
  });

  it('becomes draws that give what was planned', () => {
    const draft = carry(planned([cell('Tides', 2), cell('', 1, 5)]), 'draws');
    expect(draft.sections.map((s) => [s.title, s.draw?.pick, s.draw?.pointsEach])).to.deep.equal([
      ['Tides/choice', 2, 2],
      ['/choice', 1, 5],
    ]);
    const { outlook, hazards } = lookedAt(draft, places);
    expect(outlook.points).to.deep.equal({ least: 9, most: 9 });
    expect(outlook.categories.get('Tides')).to.deep.equal({ items: 2, points: 4 });
    expect(hazards.map((h) => h.finding.code)).not.to.include('plan-missed');
  });

  it('becomes items picked now, those that no quiz has used first', () => {
    const draft = carry(planned([cell('Tides', 2)]), 'items');
    expect(draft.sections[0]!.items.map((i) => i.item)).to.deep.equal(['q6', 'q9']);
  });

  it('gives what was planned wherever the banks have it', () => {
    const cells = fc.record({
      Tides: fc.nat({ max: 4 }),
      Lights: fc.nat({ max: 4 }),
      '': fc.nat({ max: 4 }),
      points: fc.integer({ min: 1, max: 5 }),
      as: fc.constantFrom('draws' as const, 'items' as const),
    });
    fc.assert(
      fc.property(
        cells,
        fc.double({ min: 0, max: 0.99, noNaN: true }),
        ({ points, as, ...counts }, random) => {
          const draft = planned(CATEGORIES.map((c) => cell(c, counts[c], points)));
          const { outlook } = lookedAt(
            carry(draft, as, () => random),
            places,
          );
          const total = CATEGORIES.reduce((sum, c) => sum + counts[c], 0);
          expect(outlook.items).to.equal(total);
          expect(outlook.points).to.deep.equal({ least: total * points, most: total * points });
        },
      ),
    );
  });

  it('keeps what stood there, and drops what was empty', () => {
    const stood = changed(planned([cell('Tides', 1)]), {
      do: 'add',
      section: 'section-1',
      items: [{ place: 'p', item: 'q1' }],
    });
    expect(carry(stood, 'draws').sections.map((s) => s.items.length)).to.deep.equal([1, 0]);
  });
});

describe('what a draw chooses from', () => {
  const pool = (filter: Partial<typeof NO_FILTER>, more = {}) =>
    poolItems(shelvesOf(places), {
      from: [{ ...BANK, filter: { ...NO_FILTER, ...filter } }],
      named: [],
      without: [],
      ...more,
    }).map((i) => i.item);

  it('is narrowed by kind, category, points, use and words', () => {
    expect(pool({ categories: [''] })).to.deep.equal(['q2', 'q5', 'q8', 'q11']);
    expect(pool({ points: 2, used: false })).to.deep.equal(['q1', 'q4', 'q7', 'q10']);
    expect(pool({ used: true })).to.deep.equal(['q0', 'q3']);
    expect(pool({ kinds: ['essay'] })).to.deep.equal([]);
    expect(pool({ words: 'QUESTION  d' })).to.include('q3');
    expect(pool({ picture: true })).to.deep.equal([]);
  });

  it('holds each item once, without those left out, and is empty where the bank is gone', () => {
    const named = [
      { place: 'p', item: 'q0' },
      { place: 'p', item: 'q11' },
    ];
    expect(pool({ used: true }, { named })).to.deep.equal(['q0', 'q3', 'q11']);
    expect(pool({ used: true }, { named, without: [{ place: 'p', item: 'q0' }] })).to.deep.equal([
      'q3',
      'q11',
    ]);
    expect(
      poolItems(shelvesOf({}), { from: [{ ...BANK, filter: NO_FILTER }], named: [], without: [] }),
    ).to.deep.equal([]);
  });

  it('finds words whatever their accents, capitals and script', () => {
    const found = (words: string, text: string): boolean =>
      matches({ ...NO_FILTER, words })({ ...factsOf(question('x')), text });
    expect(found('mareas vivas', 'Las MAREAS más vívas')).to.equal(true);
    expect(found('潮汐', '関連する潮汐の計算')).to.equal(true);
    expect(found('مد', 'ارتفاع المد والجزر')).to.equal(true);
    expect(found('neap spring', 'springs only')).to.equal(false);
  });
});
