import { expect } from 'chai';
import fc from 'fast-check';
import { changed, fairnessOf, likeWithin, NO_FILTER, secondsFor, type QuizDraft } from '@alforja/core';
import { composed, emptyQuiz, lookedAt, place, question } from '../../support/making.ts';

/** What a quiz comes to, against counting all of its draws, and against the fairness of draws. */

const CATEGORIES = ['Tides', 'Lights', null] as const;
const items = fc.array(
  fc.record({ points: fc.integer({ min: 1, max: 6 }), category: fc.constantFrom(...CATEGORIES) }),
  { minLength: 2, maxLength: 8 },
);
const asked = fc.record({
  of: items,
  fixed: fc.nat({ max: 3 }),
  pick: fc.nat({ max: 9 }),
  pointsEach: fc.option(fc.integer({ min: 1, max: 5 })),
});

interface Asked {
  readonly of: readonly { readonly points: number; readonly category: string | null }[];
  readonly fixed: number;
  readonly pick: number;
  readonly pointsEach: number | null;
}
/** The first few for everybody, the rest drawn from. */
function made({ of, fixed, pick, pointsEach }: Asked): {
  draft: QuizDraft;
  places: Parameters<typeof lookedAt>[1];
} {
  const all = of.map((o, n) => question(`q${n}`, { ...o, text: `Question ${'abcdefgh'[n]} alone` }));
  const first = all.slice(0, Math.min(fixed, all.length - 1)).map((i) => ({ place: 'p', item: i.id }));
  const draft = changed(changed(emptyQuiz(), { do: 'add', section: 'section-1', items: first }), {
    do: 'section-add',
    title: 'Drawn',
    draw: {
      pick,
      pointsEach,
      pool: { from: [{ place: 'p', bank: 'bank', filter: NO_FILTER }], named: [], without: first },
    },
  });
  return { draft, places: { p: place(all) } };
}

/** Every choice of k of a list. */
const choices = (list: readonly number[], k: number): number[][] =>
  k === 0
    ? [[]]
    : list.flatMap((one, at) => choices(list.slice(at + 1), k - 1).map((rest) => [one, ...rest]));

describe('what a quiz that is being made comes to', () => {
  it('the least and the most points are those of all draws there are', () => {
    fc.assert(
      fc.property(asked, (given) => {
        const { draft, places } = made(given);
        const { outlook } = lookedAt(draft, places);
        const fixed = draft.sections[0]!.items.length;
        const sure = given.of.slice(0, fixed).reduce((sum, o) => sum + o.points, 0);
        const pool = given.of.slice(fixed).map((o) => given.pointsEach ?? o.points);
        const totals = choices(pool, Math.min(given.pick, pool.length)).map((c) =>
          c.reduce((a, b) => a + b, sure),
        );
        expect(outlook.points).to.deep.equal({ least: Math.min(...totals), most: Math.max(...totals) });
      }),
    );
  });

  it('what is set of each category on average is what the fairness of draws says', () => {
    fc.assert(
      fc.property(asked, (given) => {
        const { draft, places } = made({ ...given, pick: Math.min(given.pick, 8) });
        const { holding, outlook } = lookedAt(draft, places);
        const quiz = holding.quizzes[0]!;
        const drawn = quiz.sections[1]!.draw!;
        if (drawn.pick > drawn.pool.length) return;
        for (const { category, items: of } of fairnessOf(quiz, holding.items).categories)
          expect(outlook.categories.get(category ?? '')?.items ?? 0).to.be.closeTo(of.mean, 1e-9);
      }),
    );
  });

  it('expected minutes are those of the questions, a draw by its share', () => {
    const { draft, places } = made({
      of: [1, 1, 1, 1].map((points) => ({ points, category: null })),
      fixed: 1,
      pick: 2,
      pointsEach: null,
    });
    const { outlook, holding } = lookedAt(draft, places);
    const seconds = holding.items.map((i) => secondsFor(i));
    const expected = seconds[0]! + (2 / 3) * (seconds[1]! + seconds[2]! + seconds[3]!);
    expect(outlook.minutes).to.be.closeTo(expected / 60, 1e-9);
    expect(outlook.items).to.equal(3);
  });

  it('an edit of a question does not change what the quiz gives for it', () => {
    let draft = changed(emptyQuiz(), { do: 'add', section: 'section-1', items: [{ place: 'p', item: 'a' }] });
    draft = changed(draft, { do: 'points', keys: ['a'], to: 3 });
    draft = changed(draft, { do: 'edits', edits: [{ op: 'points', node: 'a', to: 8 }] });
    const { holding } = composed(draft, { p: place([question('a')]) });
    expect(holding.items[0]!.points).to.equal(3);
  });
});

describe('what is alike within a bank', () => {
  const long = 'When the tide has fallen for two hours after high water, which part of the range is left';
  it('is told as the same or nearly, the first one first; what only looks alike is not', () => {
    const bank = [
      question('a', { text: `${long}?`, choices: ['w', 'x'] }),
      question('b', { text: 'Where does a swell come from?' }),
      question('c', { text: `${long}?`, choices: ['w', 'x'] }),
    ].map((i, _, [first]) => (i.id === 'c' ? { ...first!, id: 'c' } : i));
    expect(likeWithin(bank)).to.deep.equal([{ because: 'same', items: ['a', 'c'] }]);
    expect(likeWithin([])).to.deep.equal([]);
    expect(likeWithin(bank.slice(0, 2))).to.deep.equal([]);
  });

  it('replicas of one exercise are meant to be alike', () => {
    const speed = (id: string, n: number) =>
      question(id, {
        text: `A vessel makes ${n} knots over the ground for ${n + 1} hours in all. How many nautical miles does she cover in that time?`,
        choices: ['more', 'less'],
      });
    const found = likeWithin(
      [speed('a', 4), speed('b', 7), speed('c', 9)].map((i, n) => ({ ...i, title: `Run ${n}` })),
    );
    expect(found.filter((g) => g.because === 'same')).to.deep.equal([]);
  });
});
