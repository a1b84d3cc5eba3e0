import { expect } from 'chai';
import fc from 'fast-check';
import jstat from 'jstat';
import {
  fairnessOf,
  hypergeometric,
  make,
  metTwice,
  raschChance,
  scoreQuiz,
  simulate,
  type Draw,
  type Item,
  type Quiz,
} from '@alforja/core';
import { normal } from '../../core/src/exam/answering.ts';
import { distributionOf, drawnSum, repeatedSum } from '../../core/src/exam/distribution.ts';
import { seeded } from '../../core/src/scoring/random.ts';
import { readZip, NS21, SCORE21, template21, itemXml21 } from '../support/read.ts';

const draw = (pool: readonly string[], pick: number, more: Partial<Draw> = {}): Draw => ({
  pick,
  bank: null,
  pool,
  weights: null,
  pointsEach: 1,
  withReplacement: false,
  ...more,
});
const section = (id: string, fixed: readonly string[], of: Draw | null) => ({
  id,
  title: id,
  shuffle: false,
  items: fixed.map((item) => ({ item, weight: 1 })),
  draw: of,
  instructions: null,
});
const quizOf = (...sections: Quiz['sections']): Quiz => ({
  id: 'q',
  title: 'Q',
  settings: make.NO_SETTINGS,
  sections,
  test: null,
  metadata: [],
  origin: null,
});
const items = (points: readonly number[], category: (at: number) => string | null = () => null): Item[] =>
  points.map((p, at) =>
    make.item({
      id: `i${at}`,
      points: p,
      category: category(at),
      body: [
        make.element('p', [
          make.text(`Question ${'abcdefghijklmnopqrstuvwxyz'[at % 26]}${at} of its own kind`),
        ]),
      ],
    }),
  );
const ids = (of: readonly Item[]): string[] => of.map((i) => i.id);

describe('draws, against closed formulas and a statistics library', () => {
  it('the number of marked items among those drawn is hypergeometric (jStat, "hypgeom.pdf")', () => {
    for (const [of, marked, pick] of [
      [22, 7, 10],
      [50, 5, 10],
      [120, 40, 33],
      [10, 10, 4],
      [10, 0, 4],
    ] as const) {
      const chances = hypergeometric(of, marked, pick);
      for (let found = 0; found <= pick; found++)
        expect(chances.get(found) ?? 0).to.be.closeTo(
          found > marked || pick - found > of - marked ? 0 : jstat.hypgeom.pdf(found, of, marked, pick),
          1e-12,
        );
    }
  });

  it('put back each time it is binomial (jStat, "binomial.pdf")', () => {
    const chances = repeatedSum([1, 0, 0, 0], 6)!;
    for (let found = 0; found <= 6; found++)
      expect(chances.get(found)).to.be.closeTo(jstat.binomial.pdf(found, 6, 1 / 4), 1e-12);
  });

  it('its mean is kM/N, its variance k(M/N)(1 - M/N)(N - k)/(N - 1) (closed formulas, common practice)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 60 }), fc.nat(60), fc.nat(60), (of, m, k) => {
        const [marked, pick] = [Math.min(m, of), Math.min(k, of)];
        const { mean, deviation } = distributionOf(hypergeometric(of, marked, pick));
        const share = marked / of;
        expect(mean).to.be.closeTo(pick * share, 1e-9);
        expect(deviation ** 2).to.be.closeTo((pick * share * (1 - share) * (of - pick)) / (of - 1), 1e-8);
      }),
    );
  });

  it('a total of k from N has mean k·m and variance k·S²(N - k)/(N - 1) (Cochran, "Sampling Techniques", theorems 2.1 and 2.2; from memory)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 2, maxLength: 30 }),
        fc.nat(30),
        (points, k) => {
          const pick = Math.min(k, points.length);
          const { mean, deviation } = distributionOf(drawnSum(points, pick)!);
          const n = points.length;
          expect(mean).to.be.closeTo(pick * jstat.mean(points), 1e-8);
          expect(deviation ** 2).to.be.closeTo(
            (pick * jstat.stdev(points) ** 2 * (n - pick)) / (n - 1),
            1e-7,
          );
        },
      ),
    );
  });

  it('ten of 22 at two points and five fixed ones: 30 for everybody; unequal points spread as the formula says', () => {
    const pool = items(Array.from({ length: 22 }, () => 2));
    const fixed = items([2, 2, 2, 2, 2]).map((i, at) => ({ ...i, id: `f${at}` }));
    const quiz = quizOf(
      section('a', ids(fixed), null),
      section('b', [], draw(ids(pool), 10, { pointsEach: 2 })),
    );
    const fair = fairnessOf(quiz, [...fixed, ...pool]);
    expect([fair.exact, fair.total.values, fair.total.deviation]).to.deep.equal([true, [30], 0]);
    const uneven = pool.map((i, at) => ({ ...i, points: at < 11 ? 1 : 3 }));
    const unfair = fairnessOf(quiz, [...fixed, ...uneven]);
    expect(unfair.total.mean).to.be.closeTo(30, 1e-9);
    // Each drawn item is 1 or 3, so the spread is twice that of a hypergeometric count of 11 in 22.
    expect(unfair.total.deviation).to.be.closeTo(2 * Math.sqrt((10 * 0.25 * 12) / 21), 1e-9);
    expect([unfair.total.values[0], unfair.total.values.at(-1)]).to.deep.equal([20, 40]);
  });

  it('each item of a draw is met with k/N, two neighbours share k²/N of it, a category k·M/N (closed formulas)', () => {
    const pool = items(
      Array.from({ length: 22 }, () => 1),
      (at) => (at < 8 ? 'Tides' : 'Lights'),
    );
    const fair = fairnessOf(quizOf(section('b', [], draw(ids(pool), 10))), pool);
    for (const { chance } of fair.met) expect(chance).to.be.closeTo(10 / 22, 1e-12);
    expect(fair.shared.mean).to.be.closeTo(100 / 22, 1e-9);
    const tides = fair.categories.find((c) => c.category === 'Tides')!;
    expect(tides.items.mean).to.be.closeTo((10 * 8) / 22, 1e-9);
    for (const [at, value] of tides.items.values.entries())
      expect(tides.items.chances[at]).to.be.closeTo(jstat.hypgeom.pdf(value, 22, 8, 10), 1e-12);
  });

  it('the same question twice: k(k - 1)/(N(N - 1)) in one draw, k/N beside a fixed one, the product of two draws', () => {
    const pool = items([1, 1, 1, 1, 1, 1, 1, 1]);
    const twin = (of: Item, id: string): Item => ({ ...of, id });
    const one = [...pool, twin(pool[0]!, 'again')];
    const chance = (quiz: Quiz): number => metTwice(quiz, one)[0]?.chance ?? 0;
    const all = [...ids(pool), 'again'];
    expect(chance(quizOf(section('a', [], draw(all, 4))))).to.be.closeTo((4 * 3) / (9 * 8), 1e-12);
    expect(chance(quizOf(section('a', ['again'], draw(ids(pool), 3))))).to.be.closeTo(3 / 8, 1e-12);
    expect(
      chance(quizOf(section('a', [], draw(ids(pool), 3)), section('b', [], draw(['again', 'i1'], 1)))),
    ).to.be.closeTo((3 / 8) * (1 / 2), 1e-12);
    expect(chance(quizOf(section('a', ['i0', 'again'], null)))).to.equal(1);
    expect(metTwice(quizOf(section('a', ids(pool), null)), one)).to.deep.equal([]);
  });
});

describe('the Rasch model, against published values', () => {
  // Wright and Stone, "Best Test Design" (1979), table of success by ability minus difficulty in logits; from memory.
  for (const [difference, expected] of [
    [-3, 0.05],
    [-2, 0.12],
    [-1, 0.27],
    [0, 0.5],
    [1, 0.73],
    [2, 0.88],
    [3, 0.95],
  ] as const)
    it(`ability ${difference} above the difficulty succeeds with ${expected}`, () => {
      expect(raschChance(1 + difference, 1)).to.be.closeTo(expected, 0.005);
      expect(raschChance(difference, 0) + raschChance(-difference, 0)).to.be.closeTo(1, 1e-12);
    });

  it('abilities are normally distributed (jStat, "normal.cdf"; Kolmogorov and Smirnov at 1 %)', () => {
    const random = seeded(7);
    const sample = Array.from({ length: 5000 }, () => normal(random)).sort((a, b) => a - b);
    const furthest = Math.max(
      ...sample.map((x, at) => Math.abs((at + 1) / sample.length - jstat.normal.cdf(x, 0, 1))),
    );
    expect(furthest).to.be.below(1.63 / Math.sqrt(sample.length));
  });
});

describe('totals of a test, against worked numbers', () => {
  const question = (id: string): string =>
    itemXml21(
      id,
      `<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"><correctResponse><value>a</value></correctResponse></responseDeclaration>${SCORE21}<itemBody><p>${id}?</p><choiceInteraction responseIdentifier="RESPONSE" maxChoices="1"><simpleChoice identifier="a">a</simpleChoice><simpleChoice identifier="b">b</simpleChoice></choiceInteraction></itemBody>${template21('match_correct')}`,
    );
  const weighted = (id: string, weight: number): string =>
    `<assessmentItemRef identifier="${id}" href="${id}.xml"><weight identifier="W" value="${weight}"/></assessmentItemRef>`;
  const outcome = (rules: string): string =>
    `<assessmentTest ${NS21} identifier="t" title="T"><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue><value>0</value></defaultValue></outcomeDeclaration><testPart identifier="p" navigationMode="linear" submissionMode="individual"><assessmentSection identifier="s" title="S" visible="true">${weighted('q1', 1)}${weighted('q2', 2)}${weighted('q3', 0.5)}</assessmentSection></testPart><outcomeProcessing>${rules}</outcomeProcessing></assessmentTest>`;
  const sum = '<sum><testVariables variableIdentifier="SCORE" weightIdentifier="W"/></sum>';
  const set = (expr: string): string => `<setOutcomeValue identifier="SCORE">${expr}</setOutcomeValue>`;
  const sat = async (rules: string, ...right: string[]): Promise<number> => {
    const { quizzes, items: all } = await readZip({
      'q1.xml': question('q1'),
      'q2.xml': question('q2'),
      'q3.xml': question('q3'),
      'test.xml': outcome(rules),
    });
    return scoreQuiz(quizzes[0]!, all, new Map(right.map((id) => [id, { RESPONSE: ['a'] }]))).total;
  };

  it('QTI 2.1, "testVariables" with weights 1, 2 and 0.5: 3.5 in all, each its own', async () => {
    expect(await sat(set(sum), 'q1', 'q2', 'q3')).to.equal(3.5);
    expect(await sat(set(sum), 'q2')).to.equal(2);
    expect(await sat(set(sum), 'q1', 'q3')).to.equal(1.5);
  });

  it('QTI 2.1, "numberCorrect": two of three, times 10', async () => {
    const rules = set(
      '<product><baseValue baseType="float">10</baseValue><integerToFloat><numberCorrect/></integerToFloat></product>',
    );
    expect(await sat(rules, 'q1', 'q3')).to.equal(20);
  });
});

describe('simulated candidates', () => {
  it('reach on average what the model expects of them', async () => {
    const one = itemXml21(
      'q1',
      `<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"><correctResponse><value>a</value></correctResponse></responseDeclaration>${SCORE21}<itemBody><p>q?</p><choiceInteraction responseIdentifier="RESPONSE" maxChoices="1"><simpleChoice identifier="a">a</simpleChoice><simpleChoice identifier="b">b</simpleChoice></choiceInteraction></itemBody>${template21('match_correct')}`,
    );
    const holding = await readZip({
      'q1.xml': one,
      'test.xml': `<assessmentTest ${NS21} identifier="t" title="T"><testPart identifier="p" navigationMode="linear" submissionMode="individual"><assessmentSection identifier="s" title="S" visible="true"><assessmentItemRef identifier="q1" href="q1.xml"/></assessmentSection></testPart></assessmentTest>`,
    });
    const side = { holding, quiz: holding.quizzes[0]! };
    const means = Array.from(
      { length: 40 },
      (_, n) =>
        simulate(side, side, new Map([['q1', 'q1']]), { candidates: 400, seed: `s${n}` }).totals.source.mean,
    );
    // Ability and difficulty are spread alike, so half of all answers are right.
    expect(jstat.mean(means)).to.be.closeTo(0.5, 3 * (0.21 / Math.sqrt(40)));
  });
});
