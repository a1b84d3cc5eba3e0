import { expect } from 'chai';
import { fairnessOf, make, metTwice, setFor, sit, versionsOf, type Item, type Quiz } from '@alforja/core';
import { drawnSum } from '../../../core/src/exam/distribution.ts';

/** Quizzes as large, and as strange, as somebody may send: all of them come to an end, and to the right figures. */
const item = (at: number, points = 1): Item =>
  make.item({
    id: `i${at}`,
    points,
    body: [make.element('p', [make.text(`Question ${at} of a kind of its own`)])],
  });
const quizOf = (sections: Quiz['sections']): Quiz => ({
  id: 'q',
  title: 'Q',
  settings: make.NO_SETTINGS,
  sections,
  test: null,
  metadata: [],
  origin: null,
});
const section = (at: number, more: Partial<Quiz['sections'][number]>): Quiz['sections'][number] => ({
  id: `s${at}`,
  title: '',
  shuffle: true,
  items: [],
  draw: null,
  instructions: null,
  ...more,
});
const draw = (pool: readonly string[], pick: number) => ({
  pick,
  bank: null,
  pool,
  weights: null,
  pointsEach: 2,
  withReplacement: false,
});

describe('very large quizzes', () => {
  const ofSections = (count: number): { items: Item[]; quiz: Quiz } => {
    const items = Array.from({ length: count }, (_, at) => item(at));
    return { items, quiz: quizOf(items.map((i, at) => section(at, { items: [{ item: i.id, weight: 1 }] }))) };
  };

  it('of a hundred thousand sections are set, sat and counted', () => {
    const { items, quiz } = ofSections(100_000);
    expect(setFor(quiz, items, 1).at(-1)!.section).to.equal(99_999);
    expect(sit(quiz, items, 1, new Map()).total).to.equal(0);
    expect(fairnessOf(quiz, items).total.values).to.deep.equal([100_000]);
  });

  it('of twenty thousand sections have versions', () => {
    const { items, quiz } = ofSections(20_000);
    const { versions } = versionsOf({ items, quizzes: [quiz] }, quiz, 2, 'x');
    expect(versions.map((v) => v.points)).to.deep.equal([20_000, 20_000]);
  });

  it('of a pool of fifty thousand are counted exactly', () => {
    const items = Array.from({ length: 50_000 }, (_, at) => item(at, 1 + (at % 2)));
    const quiz = quizOf([
      section(0, {
        draw: draw(
          items.map((i) => i.id),
          60,
        ),
      }),
    ]);
    const fair = fairnessOf(quiz, items);
    expect(fair.exact).to.equal(true);
    expect(fair.total.mean).to.be.closeTo(90, 1e-6);
    expect(fair.met[0]!.chance).to.be.closeTo(60 / 50_000, 1e-12);
    const { sharing } = versionsOf({ items, quizzes: [quiz] }, quiz, 3, 'x');
    expect(sharing.map((s) => s.items.shared)).to.deep.equal([0, 0, 0]);
  });

  it('whose sums cannot be counted say so, and are drawn instead', () => {
    expect(
      drawnSum(
        Array.from({ length: 3000 }, (_, at) => Math.sqrt(at)),
        60,
      ),
    ).to.equal(null);
    const items = Array.from({ length: 400 }, (_, at) => item(at, Math.sqrt(at + 1)));
    const quiz = quizOf([
      section(0, {
        draw: draw(
          items.map((i) => i.id),
          20,
        ),
      }),
    ]);
    const fair = fairnessOf(quiz, items, 'seed');
    expect([fair.exact, fair.candidates, fair.seed]).to.deep.equal([false, 10_000, 'seed']);
  });

  it('of a crowd that asks the same name the likeliest pairs, and end', () => {
    const same = Array.from({ length: 3000 }, (_, at) => ({ ...item(0), id: `i${at}` }));
    const pool = same.map((i) => i.id);
    const found = metTwice(quizOf([section(0, { draw: draw(pool, 10) })]), same);
    expect(found).to.have.length(500);
    expect(found[0]!.chance).to.be.closeTo(90 / (3000 * 2999), 1e-12);
  });

  it('with nothing to draw from, or that draw more than there is, are what is there', () => {
    const items = [item(0), item(1)];
    for (const [pool, pick, met] of [
      [[], 5, 0],
      [['i0', 'i1'], 5, 2],
      [['gone'], 1, 0],
    ] as const) {
      const quiz = quizOf([section(0, { draw: draw(pool, pick) })]);
      const fair = fairnessOf(quiz, items);
      expect([fair.exact, fair.total.values]).to.deep.equal([true, [met]]);
      expect(setFor(quiz, items, 1)).to.have.length(met);
      expect(versionsOf({ items, quizzes: [quiz] }, quiz, 2, 'x').versions[0]!.items).to.have.length(met);
    }
  });
});
