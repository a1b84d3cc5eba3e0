import { expect } from 'chai';
import {
  changed,
  hazardsOf,
  MAX_MADE,
  NO_FILTER,
  speak,
  type FindingCode,
  type Hazard,
  type QuizDraft,
} from '@alforja/core';
import { emptyQuiz, lookedAt, place, question, shelvesOf, type Places } from '../../support/making.ts';

const at = (item: string, where = 'p') => ({ place: where, item });
const all = { place: 'p', bank: 'bank', filter: NO_FILTER };
const drawn = (draft: QuizDraft, pick: number, pointsEach: number | null = null): QuizDraft =>
  changed(draft, {
    do: 'section-add',
    title: 'Drawn',
    draw: { pick, pointsEach, pool: { from: [all], named: [], without: [] } },
  });
const fixed = (...ids: string[]): QuizDraft =>
  changed(emptyQuiz(), { do: 'add', section: 'section-1', items: ids.map((i) => at(i)) });
const found = (hazards: readonly Hazard[], code: FindingCode): Hazard[] =>
  hazards.filter((h) => h.finding.code === code);
const mended = (draft: QuizDraft, hazards: readonly Hazard[]): QuizDraft =>
  hazards.flatMap((h) => h.changes ?? []).reduce(changed, draft);

/** What trips each hazard, and whether its repair has to end it. */
const TRIPS: readonly (readonly [FindingCode, QuizDraft, Places, mends: boolean])[] = [
  ['draw-too-large', drawn(emptyQuiz(), 5), { p: place([question('a'), question('b')]) }, true],
  ['draw-empty', drawn(emptyQuiz(), 5), { p: place([]) }, false],
  [
    'draw-points-unequal',
    drawn(emptyQuiz(), 1),
    { p: place([question('a'), question('b', { points: 2 })]) },
    true,
  ],
  ['source-gone', fixed('a', 'gone'), { p: place([question('a')]) }, true],
  ['key-missing', fixed('a', 'b'), { p: place([question('a'), question('b', { key: null })]) }, true],
  [
    'all-of-the-above-shuffled',
    fixed('a'),
    { p: place([question('a', { shuffle: true, choices: ['this', 'that', 'All of the above, says all'] })]) },
    true,
  ],
  ['met-twice', drawn(fixed('a'), 1), { p: place([question('a'), question('b')]) }, true],
  [
    'pass-mark-above-total',
    changed(fixed('a'), { do: 'settings', to: { passMark: 7 } }),
    { p: place([question('a')]) },
    true,
  ],
  [
    'time-short',
    changed(fixed('a', 'b', 'c', 'd'), { do: 'settings', to: { timeLimitMinutes: 1 } }),
    { p: place(['a', 'b', 'c', 'd'].map((id) => question(id))) },
    true,
  ],
  [
    'category-unasked',
    changed(fixed('a'), { do: 'plan', to: { from: [{ place: 'p', bank: 'bank' }], cells: [] } }),
    { p: place([question('a', { category: 'Tides' }), question('b', { category: 'Lights' })]) },
    true,
  ],
  [
    'plan-lacks',
    changed(emptyQuiz(), {
      do: 'plan',
      to: {
        from: [{ place: 'p', bank: 'bank' }],
        cells: [{ category: 'Tides', kind: 'choice', count: 9, points: 1 }],
      },
    }),
    { p: place([question('a', { category: 'Tides' })]) },
    true,
  ],
  [
    'plan-missed',
    changed(fixed('a'), {
      do: 'plan',
      to: {
        from: [{ place: 'p', bank: 'bank' }],
        cells: [{ category: 'Tides', kind: 'choice', count: 1, points: 9 }],
      },
    }),
    { p: place([question('a', { category: 'Tides' })]) },
    false,
  ],
];

describe('what is wrong with a quiz that is being made', () => {
  for (const [code, draft, places, mends] of TRIPS)
    it(`${code} is found${mends ? ', and put right' : ''}`, () => {
      const before = lookedAt(draft, places);
      const those = found(before.hazards, code);
      expect(those.map((h) => h.finding.code)).to.include(code);
      expect(speak(those[0]!.finding).message).not.to.match(/[{}]/u);
      if (!mends) return;
      expect(those.every((h) => h.changes !== null)).to.equal(true);
      const after = lookedAt(mended(draft, those), places);
      expect(found(after.hazards, code)).to.deep.equal([]);
    });

  it('is nothing where nothing is', () => {
    const words = [
      'Where does the sun rise at the equinox?',
      'How long is a cable?',
      'Who keeps the lookout?',
    ];
    const places = {
      p: place(words.map((text, n) => question(`q${n}`, { text, choices: [`${text} yes`, `${text} no`] }))),
    };
    expect(lookedAt(fixed('q0', 'q1', 'q2'), places).hazards).to.deep.equal([]);
  });

  it('says how likely the same question is met twice: a fixed one in a draw of k of n', () => {
    const many = Array.from({ length: 8 }, (_, n) =>
      question(`q${n}`, {
        text: `${'abcdefgh'[n]!.repeat(6)} ${'hgfedcba'[n]!.repeat(7)}?`,
        choices: [`x${n}`, `y${n}`],
      }),
    );
    const { hazards } = lookedAt(drawn(fixed('q0'), 2), { p: place(many) });
    const [twice] = found(hazards, 'met-twice');
    // 2 of 8: a quarter.
    expect(twice!.finding.params).to.include({ percent: '25', because: 'the same question' });
    expect(twice!.changes).to.deep.equal([{ do: 'without', section: 'section-2', items: [at('q0')] }]);
  });

  it('gives every candidate the same once a draw says its points', () => {
    const places = { p: place([question('a'), question('b', { points: 2 }), question('c', { points: 4 })]) };
    expect(lookedAt(drawn(emptyQuiz(), 2), places).outlook.points).to.deep.equal({ least: 3, most: 6 });
    const even = lookedAt(drawn(emptyQuiz(), 2, 2), places);
    expect(even.outlook.points).to.deep.equal({ least: 4, most: 4 });
    expect(found(even.hazards, 'draw-points-unequal')).to.deep.equal([]);
  });

  it('says that a pool is too large to be set down, or that it is looked at later', () => {
    const few = lookedAt(drawn(emptyQuiz(), 2), { p: place([question('a'), question('b')]) });
    const told = (count: number): string[] => {
      const [one] = few.holding.items;
      const items = Array.from({ length: count }, () => one!);
      const draft = drawn(emptyQuiz(), 2);
      const shelves = shelvesOf({});
      return hazardsOf({ ...few, holding: { ...few.holding, items }, draft, shelves, whole: false }).map(
        (h) => h.finding.code,
      );
    };
    expect(told(MAX_MADE)).to.include('looked-at-later');
    expect(told(MAX_MADE + 1)).to.include('made-too-large');
  });
});
