import { expect } from 'chai';
import fc from 'fast-check';
import {
  choicesOf,
  recognise,
  scoreQuiz,
  setFor,
  sit,
  type Answers,
  type Holding,
  type Item,
  type Quiz,
} from '@alforja/core';
import { anyHolding } from '../../support/arbitraries.ts';
import { distanceItem } from '../../support/parameters.ts';
import { itemXml21, NS21, readZip, SCORE21, template21 } from '../../support/read.ts';
import { settleDraws } from '../../../core/src/reading/settle.ts';
import { settlePoints } from '../../support/settled.ts';

const choice = (id: string): string =>
  itemXml21(
    id,
    `<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"><correctResponse><value>a</value></correctResponse></responseDeclaration>${SCORE21}<itemBody><p>${id}?</p><choiceInteraction responseIdentifier="RESPONSE" maxChoices="1" shuffle="true">${['a', 'b', 'c', 'd', 'e'].map((c) => `<simpleChoice identifier="${c}">${c}</simpleChoice>`).join('')}</choiceInteraction></itemBody>${template21('match_correct')}`,
  );
/** A second attempt gets half of what is left. */
const adaptive = itemXml21(
  'more',
  `<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"/>${SCORE21}<outcomeDeclaration identifier="TRIED" cardinality="single" baseType="integer"><defaultValue><value>0</value></defaultValue></outcomeDeclaration><outcomeDeclaration identifier="completionStatus" cardinality="single" baseType="identifier"><defaultValue><value>incomplete</value></defaultValue></outcomeDeclaration><itemBody><choiceInteraction responseIdentifier="RESPONSE" maxChoices="1"><simpleChoice identifier="a">a</simpleChoice><simpleChoice identifier="b">b</simpleChoice></choiceInteraction></itemBody><responseProcessing><responseCondition><responseIf><match><variable identifier="RESPONSE"/><baseValue baseType="identifier">a</baseValue></match><setOutcomeValue identifier="SCORE"><divide><baseValue baseType="float">2</baseValue><sum><variable identifier="TRIED"/><baseValue baseType="integer">1</baseValue></sum></divide></setOutcomeValue><setOutcomeValue identifier="completionStatus"><baseValue baseType="identifier">completed</baseValue></setOutcomeValue></responseIf></responseCondition><setOutcomeValue identifier="TRIED"><sum><variable identifier="TRIED"/><baseValue baseType="integer">1</baseValue></sum></setOutcomeValue></responseProcessing>`,
).replace('adaptive="false"', 'adaptive="true"');

async function test(
  control: string,
  part = 'navigationMode="linear" submissionMode="individual"',
): Promise<{ quiz: Quiz; items: readonly Item[] }> {
  const { quizzes, items } = await readZip({
    'a.xml': choice('a'),
    'b.xml': choice('b'),
    'more.xml': adaptive,
    'run.xml': distanceItem(),
    'test.xml': `<assessmentTest ${NS21} identifier="t" title="T"><testPart identifier="p" ${part}>${control}<assessmentSection identifier="s" title="S" visible="true">${['a', 'b', 'more', 'run'].map((n) => `<assessmentItemRef identifier="${n}" href="${n}.xml"/>`).join('')}</assessmentSection></testPart></assessmentTest>`,
  });
  return { quiz: quizzes[0]!, items };
}
const gave = (...list: [string, ...Answers[]][]): Map<string, Answers[]> =>
  new Map(list.map(([id, ...a]) => [id, a]));
const is = (c: string): Answers => ({ RESPONSE: [c] });

describe('a sitting', () => {
  it('sets items as the settings say: no way back, one by one, so many attempts, told or not', async () => {
    const { quiz, items } = await test('<itemSessionControl maxAttempts="3" showFeedback="true"/>');
    const [a, , more] = setFor(quiz, items, 1);
    expect([a!.linear, a!.individual, a!.attempts, a!.told]).to.deep.equal([true, true, 3, true]);
    // Attempts of adaptive items are not counted (QTI 2.1, "maxAttempts").
    expect([more!.attempts, more!.told]).to.deep.equal([null, true]);
    const plain = await test('', 'navigationMode="nonlinear" submissionMode="simultaneous"');
    const [once] = setFor(plain.quiz, plain.items, 1);
    expect([once!.linear, once!.individual, once!.attempts, once!.told]).to.deep.equal([
      false,
      false,
      1,
      false,
    ]);
  });

  it('shuffles choices and draws numbers by the seed, and scores what was shown', async () => {
    const { quiz, items } = await test('');
    const orders = [1, 2, 3, 4, 5].map((seed) =>
      choicesOf(setFor(quiz, items, seed)[0]!.item)
        .map((c) => c.id)
        .join(''),
    );
    expect(new Set(orders).size).to.be.greaterThan(1);
    for (const seed of [1, 2, 3]) {
      const run = setFor(quiz, items, seed).at(-1)!.item;
      const [key] = Object.values(recognise(run).key);
      const { items: sat } = sit(quiz, items, seed, gave(['run', { RESPONSE: key! }]));
      expect(sat.at(-1)!.score).to.equal(2);
    }
  });

  it('counts the last attempt, builds on earlier ones in adaptive items, and knows when no more counts', async () => {
    const { quiz, items } = await test('<itemSessionControl maxAttempts="2"/>');
    const after = (...list: [string, ...Answers[]][]) => sit(quiz, items, 1, gave(...list));
    expect(after(['a', is('b')]).items[0]).to.include({ score: 0, done: false });
    expect(after(['a', is('b'), is('a')]).items[0]).to.include({ score: 1, done: true });
    expect(after(['a', is('b'), is('c')]).items[0]).to.include({ score: 0, done: true });
    expect(after(['more', is('a')]).items[2]).to.include({ score: 2, done: true });
    expect(after(['more', is('b')]).items[2]).to.include({ score: 0, done: false });
    expect(after(['more', is('b'), is('a')]).items[2]).to.include({ score: 1, done: true });
    expect(after(['more', is('b'), is('a')], ['a', is('a')]).total).to.equal(2);
  });

  it('of any quiz scores what scoring the whole quiz does', () => {
    const settled = anyHolding.map((h): Holding => {
      const items = settlePoints(h.items, h.quizzes);
      return { ...h, items, quizzes: settleDraws(h.quizzes, items) };
    });
    fc.assert(
      fc.property(settled, fc.nat(1000), ({ quizzes, items }, seed) => {
        const quiz = quizzes[0]!;
        const best = new Map(items.map((i) => [i.id, recognise(i).best.answers]));
        const sat = sit(quiz, items, seed, new Map([...best].map(([id, a]) => [id, [a]])));
        expect(sat.total).to.equal(scoreQuiz(quiz, items, best, seed).total);
        expect(sit(quiz, items, seed, new Map()).items.every((i) => !i.done)).to.equal(true);
      }),
      { numRuns: 50 },
    );
  });
});
