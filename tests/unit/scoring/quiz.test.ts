import { expect } from 'chai';
import fc from 'fast-check';
import { deliver, scoreQuiz, type Answers, type Holding } from '@alforja/core';
import { NS21, readZip } from '../../support/read.ts';
import { anyHolding } from '../../support/arbitraries.ts';

const item = (id: string): string =>
  `<assessmentItem ${NS21} identifier="${id}" title="${id}"><responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"><correctResponse><value>A</value></correctResponse></responseDeclaration><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float" normalMaximum="1"/>
  <itemBody><choiceInteraction responseIdentifier="RESPONSE" maxChoices="1"><simpleChoice identifier="A">a ${id}</simpleChoice><simpleChoice identifier="B">b ${id}</simpleChoice></choiceInteraction></itemBody><responseProcessing template="match_correct"/></assessmentItem>`;
const ref = (id: string, inside = '', attrs = ''): string =>
  `<assessmentItemRef identifier="r${id}" href="${id}.xml" ${attrs}>${inside}</assessmentItemRef>`;
const score = (expr: string): string =>
  `<outcomeProcessing><setOutcomeValue identifier="SCORE">${expr}</setOutcomeValue></outcomeProcessing>`;
const base = (v: number): string => `<baseValue baseType="float">${v}</baseValue>`;

async function test(inside: string, outcome = ''): Promise<Holding> {
  const ids = ['a', 'b', 'c', 'd'];
  return readZip({
    'test.xml': `<assessmentTest ${NS21} identifier="t" title="T"><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float" masteryValue="2"/><testPart identifier="p" navigationMode="linear" submissionMode="individual">${inside}</testPart>${outcome}</assessmentTest>`,
    ...Object.fromEntries(ids.map((id) => [`${id}.xml`, item(id)])),
  });
}
const right = (...ids: string[]): Map<string, Answers> => new Map(ids.map((id) => [id, { RESPONSE: ['A'] }]));
const section = (id: string, inside: string): string =>
  `<assessmentSection identifier="${id}" title="${id}" visible="true">${inside}</assessmentSection>`;

const PART = '</testPart><testPart identifier="q" navigationMode="linear" submissionMode="individual">';

describe('scoring a whole quiz', () => {
  it('applies weights, categories and counts in outcome processing', async () => {
    const inside = section(
      's',
      ref('a', '<weight identifier="W" value="3"/>', 'category="x"') +
        ref('b', '', 'category="y"') +
        ref('c'),
    );
    const total = async (expr: string, ...ids: string[]): Promise<number> => {
      const { quizzes, items } = await test(inside, score(expr));
      return scoreQuiz(quizzes[0]!, items, right(...ids)).total;
    };
    expect(
      await total('<sum><testVariables variableIdentifier="SCORE" weightIdentifier="W"/></sum>', 'a', 'b'),
    ).to.equal(4);
    expect(
      await total('<sum><testVariables variableIdentifier="SCORE" includeCategory="y"/></sum>', 'a', 'b'),
    ).to.equal(1);
    expect(
      await total(
        '<sum><testVariables variableIdentifier="SCORE" excludeCategory="y"/></sum>',
        'a',
        'b',
        'c',
      ),
    ).to.equal(2);
    expect(await total('<numberCorrect/>', 'a', 'c')).to.equal(2);
    expect(await total('<numberPresented/>', 'a')).to.equal(3);
    expect(await total('<numberResponded/>', 'a')).to.equal(1);
    expect(await total('<outcomeMaximum outcomeIdentifier="SCORE" weightIdentifier="W"/>')).to.equal(5);
    expect(
      await total(`<product><variable identifier="ra.SCORE" weightIdentifier="W"/>${base(2)}</product>`, 'a'),
    ).to.equal(6);
  });

  it('heeds pre-conditions and branch rules', async () => {
    const wrong = `<preCondition><lt><variable identifier="ra.SCORE"/>${base(1)}</lt></preCondition>`;
    const jump = `<branchRule target="rd"><gt><variable identifier="rb.SCORE"/>${base(0)}</gt></branchRule>`;
    const { quizzes, items } = await test(
      section('s', ref('a') + ref('b', jump) + ref('c') + ref('d', wrong)),
    );
    const shown = (answers: Map<string, Answers>): string =>
      scoreQuiz(quizzes[0]!, items, answers)
        .items.filter((i) => i.presented)
        .map((i) => i.item)
        .join('');
    expect(shown(right())).to.equal('abcd');
    expect(shown(right('a'))).to.equal('abc');
    expect(shown(right('b'))).to.equal('abd');
  });

  it('comes to an end where conditions lead in a circle: nothing is asked twice', async () => {
    const back = (to: string): string =>
      `<branchRule target="${to}"><gte>${base(1)}${base(0)}</gte></branchRule>`;
    const oneself = `<preCondition><gt><variable identifier="ra.SCORE"/>${base(0)}</gt></preCondition>`;
    const shown = async (inside: string): Promise<string> => {
      const { quizzes, items } = await test(inside);
      const scored = scoreQuiz(quizzes[0]!, items, right('a', 'b', 'c', 'd')).items;
      return scored
        .filter((i) => i.presented)
        .map((i) => i.item)
        .join('');
    };
    // What stands before cannot come again (QTI 2.1, "branchRule": only forward): the rest is left out.
    expect(await shown(section('s', ref('a') + ref('b', back('ra')) + ref('c')))).to.equal('ab');
    expect(await shown(section('s', ref('a', back('ra')) + ref('b')))).to.equal('a');
    expect(
      await shown(
        section('s', ref('a') + ref('b')) + section('t', back('s') + ref('c')) + section('u', ref('d')),
      ),
    ).to.equal('abc');
    // A question that waits for its own score is never asked.
    expect(await shown(section('s', ref('a', oneself) + ref('b')))).to.equal('b');
  });

  it('heeds the conditions of sections and parts, and the exits', async () => {
    const when = (name: string, rule: string, id: string): string =>
      `<${name} ${rule}><gt><variable identifier="${id}.SCORE"/>${base(0)}</gt></${name}>`;
    const shown = async (inside: string, ...ids: string[]): Promise<string> => {
      const { quizzes, items } = await test(inside);
      const scored = scoreQuiz(quizzes[0]!, items, right(...ids)).items;
      return scored
        .filter((i) => i.presented)
        .map((i) => i.item)
        .join('');
    };
    const exit = (to: string): string => when('branchRule', `target="${to}"`, 'ra');
    const two = (to: string): string =>
      section('s', ref('a', exit(to)) + ref('b')) + section('t', ref('c')) + PART + section('u', ref('d'));
    expect(await shown(two('EXIT_SECTION'))).to.equal('abcd');
    expect(await shown(two('EXIT_SECTION'), 'a')).to.equal('acd');
    expect(await shown(two('EXIT_TESTPART'), 'a')).to.equal('ad');
    expect(await shown(two('EXIT_TEST'), 'a')).to.equal('a');
    const gate =
      section('s', ref('a')) +
      section('t', when('preCondition', '', 'ra') + section('v', ref('b') + ref('c'))) +
      section('u', ref('d'));
    expect(await shown(gate)).to.equal('ad');
    expect(await shown(gate, 'a')).to.equal('abcd');
    const leaving =
      section('s', exit('u') + ref('a') + ref('b')) + section('t', ref('c')) + section('u', ref('d'));
    expect(await shown(leaving, 'a')).to.equal('abd');
    expect(await shown(leaving)).to.equal('abcd');
    const part =
      section('s', ref('a')) +
      PART.replace('"linear"', '"nonlinear"') +
      when('preCondition', '', 'ra') +
      section('u', ref('b', exit('EXIT_TEST')) + ref('d'));
    expect(await shown(part)).to.equal('a');
    expect(await shown(part, 'a')).to.equal('abd');
  });

  it('tells whether it is passed', async () => {
    const { quizzes, items } = await test(section('s', ref('a') + ref('b')));
    expect(scoreQuiz(quizzes[0]!, items, right('a')).passed).to.equal(false);
    expect(scoreQuiz(quizzes[0]!, items, right('a', 'b'))).to.include({ passed: true, total: 2 });
  });

  it('draws as many as asked, the same for the same seed, required and fixed ones in their place', async () => {
    const { quizzes } = await test(
      section(
        's',
        `<selection select="2"/><ordering shuffle="true"/>${ref('a', '', 'required="true" fixed="true"')}${ref('b')}${ref('c')}${ref('d')}`,
      ),
    );
    const seen = new Set<string>();
    for (let seed = 1; seed < 40; seed++) {
      const set = deliver(quizzes[0]!, seed).map((d) => d.item);
      expect(set).to.have.length(2);
      expect(set[0]).to.equal('a');
      expect(deliver(quizzes[0]!, seed).map((d) => d.item)).to.deep.equal(set);
      seen.add(set[1]!);
    }
    expect([...seen].sort()).to.deep.equal(['b', 'c', 'd']);
  });

  it('never sets more than there is, and prices a draw by what each is worth', () => {
    fc.assert(
      fc.property(anyHolding, fc.nat(), (holding, seed) => {
        const quiz = holding.quizzes[0]!;
        const set = deliver(quiz, seed);
        const { draw } = quiz.sections[1]!;
        expect(set.filter((d) => draw!.pool.includes(d.item))).to.have.length(
          Math.min(draw!.pick, draw!.pool.length),
        );
        expect(new Set(set.map((d) => d.item)).size).to.equal(set.length);
      }),
      { numRuns: 30 },
    );
  });
});
