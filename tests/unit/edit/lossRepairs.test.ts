import { expect } from 'chai';
import fc from 'fast-check';
import {
  allRepairs,
  applyEdits,
  evaluate,
  make,
  plain,
  recognise,
  changesScores,
  comparePlanned,
  compareHoldings,
  forecast,
  mend,
  readHolding,
  writeHolding,
  type Finding,
  type Holding,
  type Item,
  type Target,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { demoFiles } from '../../../demo/packages.ts';
import { itemXml21, NS21, readZip, SCORE21 as SCORE, template21 } from '../../support/read.ts';
import { THREE_LOSSES } from '../../support/threeLosses.ts';
import { readAll } from '../../support/losses.ts';
import { declared, item21, mappingOf, spec12 } from './support.ts';

const three = (): Promise<Holding> => readZip(THREE_LOSSES);

const bad = (findings: readonly Finding[]): Finding[] =>
  findings.filter((f) => f.code === 'loss-kind' || f.code === 'loss-scoring');
const TARGET: Target = 'cc1.3';

describe('repairs of losses', () => {
  it('take every loss away, and say by running them whose scores change', async () => {
    const holding = await three();
    const losses = bad(forecast(holding, TARGET));
    expect(new Set(losses.map((f) => f.where.node))).to.deep.equal(new Set(['match', 'number', 'parts']));
    const repairs = allRepairs(holding, TARGET).filter((r) => r.code.startsWith('loss-'));
    const changing = new Map(repairs.map((r) => [r.node, changesScores(r)]));
    expect([...changing].sort()).to.deep.equal([
      ['match', false],
      ['number', true],
      ['parts', true],
    ]);
    const { holding: mended, edits } = mend(holding, 'all', [], (h) => allRepairs(h, TARGET));
    expect(edits.map((e) => e.op).sort()).to.deep.equal(['scoring', 'scoring', 'separate']);
    expect(bad(forecast(mended, TARGET))).to.deep.equal([]);
    expect(mended.items.map((i) => i.points)).to.deep.equal([1, 2, 3, 3]);
  });

  it('arrive as planned, and only what was changed on purpose is otherwise', async () => {
    const holding = await three();
    const { holding: mended } = mend(holding, 'all', [], (h) => allRepairs(h, TARGET));
    const back = await readAll(writeHolding(mended, TARGET, () => null, nodePlatform).packages);
    const items = { ...mended, banks: [], quizzes: [] };
    const { comparison, onPurpose } = comparePlanned(holding, items, { ...back, banks: [], quizzes: [] });
    expect([comparison.verdict, comparison.counts]).to.deep.equal([
      'intact',
      { intact: 4, altered: 0, missing: 0, extra: 0 },
    ]);
    expect(new Set(onPurpose.map((p) => p.node))).to.include.all.keys('match', 'number', 'parts');
  });

  it('are not made where scores would change, unless that is wanted', async () => {
    const holding = await three();
    const { edits } = mend(holding, 'all', [], (h) => allRepairs(h, TARGET).filter((r) => !changesScores(r)));
    expect(edits.map((e) => [e.op, e.node])).to.deep.equal([['separate', 'match']]);
  });

  it('never make it worse, whatever the package and the target', async () => {
    for (const name of ['every-kind.zip', 'midterm-export.zip', 'distance-drill.zip']) {
      const { bytes } = demoFiles().find((f) => f.name === name)!;
      const holding = await readHolding(name, bytes, nodePlatform);
      for (const target of ['cc1.3', 'qti1.2', 'qti2.1'] as const) {
        const before = bad(forecast(holding, target));
        const { holding: mended, edits } = mend(
          holding,
          new Set([
            'loss-kind',
            'loss-scoring',
            'loss-feedback',
            'loss-draw',
            'loss-settings',
            'loss-section',
          ]),
          [],
          (h) => allRepairs(h, target),
        );
        const after = bad(forecast(mended, target));
        expect(after.length, `${name} ${target}`).to.be.at.most(before.length);
        if (edits.length === 0) expect(compareHoldings(holding, mended).verdict).to.equal('intact');
      }
    }
  });

  it('say in the instructions what a cartridge has no place for', async () => {
    const { bytes } = demoFiles().find((f) => f.name === 'midterm-export.zip')!;
    const holding = await readHolding('midterm-export.zip', bytes, nodePlatform);
    const timed: Holding = {
      ...holding,
      quizzes: holding.quizzes.map((q) => ({ ...q, settings: { ...q.settings, passMark: 12 } })),
    };
    const { holding: mended } = mend(timed, new Set(['loss-settings']), [], (h) => allRepairs(h, TARGET));
    const [quiz] = mended.quizzes;
    expect(quiz!.settings.passMark).to.equal(null);
    expect(quiz!.settings.instructions).to.include('Pass mark: 12 points.');
  });
});

const set = (ids: readonly string[]): string => {
  const choices = ids.map(
    (id) => `<simpleAssociableChoice identifier="${id}" matchMax="0">Says ${id}</simpleAssociableChoice>`,
  );
  return `<simpleMatchSet>${choices.join('')}</simpleMatchSet>`;
};
/** A matching, each pair with points of its own. */
const matching = (pairs: Readonly<Record<string, number>>): Promise<Holding> =>
  item21(
    `${declared('multiple', 'directedPair', Object.keys(pairs), mappingOf(pairs))}<itemBody>` +
      '<matchInteraction responseIdentifier="RESPONSE" shuffle="false" maxAssociations="0">' +
      `${set(['A', 'B', 'C'])}${set(['x', 'y', 'z'])}</matchInteraction></itemBody>${template21('map_response')}`,
  );

describe('an item for each row', () => {
  it('lets several be ticked where a row has several partners, and leaves out a row that has none', async () => {
    const holding = await matching({ 'A x': 1, 'A y': 2, 'B z': 1 });
    const { holding: mended, refused } = applyEdits(holding, [{ op: 'separate', node: 'i1' }]);
    expect(refused).to.deep.equal([]);
    const [first, second] = mended.items;
    expect(mended.items.map((i) => [i.id, i.points])).to.deep.equal([
      ['i1-1', 3],
      ['i1-2', 1],
    ]);
    const score = (item: Item, ...given: string[]): number => evaluate(item, { RESPONSE: given }).score;
    expect([
      score(first!, 'x'),
      score(first!, 'y'),
      score(first!, 'x', 'y'),
      score(first!, 'z'),
    ]).to.deep.equal([1, 2, 3, 0]);
    expect([score(second!, 'z'), score(second!, 'x')]).to.deep.equal([1, 0]);
  });

  it('is worth the same together, whatever the pairs are worth', () =>
    fc.assert(
      fc.asyncProperty(
        fc.uniqueArray(fc.constantFrom('A x', 'A y', 'B x', 'B z', 'C y', 'C z'), { minLength: 1 }),
        fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 6, maxLength: 6 }),
        async (pairs, worth) => {
          const holding = await matching(Object.fromEntries(pairs.map((p, at) => [p, worth[at]!])));
          const { holding: mended } = applyEdits(holding, [{ op: 'separate', node: 'i1' }]);
          const sum = mended.items.reduce((n, i) => n + i.points, 0);
          expect(sum).to.be.closeTo(holding.items[0]!.points, 1e-9);
          for (const item of mended.items)
            expect(evaluate(item, recognise(item).best.answers).score).to.be.closeTo(item.points, 1e-9);
        },
      ),
      { numRuns: 40 },
    ));

  it('takes blanks apart that score only together, where that is wanted', async () => {
    const blank = (id: string): string =>
      `<responseDeclaration identifier="${id}" cardinality="single" baseType="string"><correctResponse>` +
      `<value>${id}right</value></correctResponse></responseDeclaration>`;
    const holding = await item21(
      `${blank('P')}${blank('Q')}${SCORE}<itemBody>` +
        '<p>One <textEntryInteraction responseIdentifier="P"/> two <textEntryInteraction responseIdentifier="Q"/>' +
        '</p></itemBody><responseProcessing><responseCondition><responseIf><and><match><variable identifier="P"/>' +
        '<correct identifier="P"/></match><match><variable identifier="Q"/><correct identifier="Q"/></match></and>' +
        '<setOutcomeValue identifier="SCORE"><baseValue baseType="float">4</baseValue></setOutcomeValue>' +
        '</responseIf></responseCondition></responseProcessing>',
    );
    const repairs = allRepairs(holding, TARGET).filter((r) => r.edits.some((e) => e.op === 'separate'));
    expect(repairs.map(changesScores)).to.deep.equal([true]);
    const { holding: mended } = applyEdits(holding, repairs[0]!.edits);
    expect(mended.items.map((i) => i.points)).to.deep.equal([2, 2]);
    expect(evaluate(mended.items[1]!, { Q: ['Qright'] }).score).to.equal(2);
    expect(bad(forecast(mended, TARGET))).to.deep.equal([]);
  });
});

describe('what else a target loses', () => {
  it('a pattern becomes the texts that were found to fit it, and says that scores change', async () => {
    const holding = await item21(
      `<responseDeclaration identifier="R" cardinality="single" baseType="string"/>${SCORE}<itemBody>` +
        '<p>The colour: <textEntryInteraction responseIdentifier="R"/></p></itemBody><responseProcessing>' +
        '<responseCondition><responseIf><patternMatch pattern="grey|gray"><variable identifier="R"/>' +
        '</patternMatch><setOutcomeValue identifier="SCORE"><baseValue baseType="float">1</baseValue>' +
        '</setOutcomeValue></responseIf></responseCondition></responseProcessing>',
    );
    const { holding: mended } = mend(holding, 'all', [], (h) => allRepairs(h, TARGET));
    const score = (text: string): number => evaluate(mended.items[0]!, { R: [text] }).score;
    expect([score('grey'), score('gray'), score('green')]).to.deep.equal([1, 1, 0]);
    expect(bad(forecast(mended, TARGET))).to.deep.equal([]);
  });

  it('hints and solutions are told to everybody, and arrive', async () => {
    const holding = await spec12({
      kind: 'single',
      id: 'i',
      points: 1,
      stem: '<p>Which side is port?</p>',
      choices: [{ text: 'Left', right: true }, { text: 'Right' }],
    });
    const helped: Holding = {
      ...holding,
      items: holding.items.map((i) => ({
        ...i,
        feedback: [
          {
            id: 'help',
            kind: 'hint' as const,
            title: '',
            outcome: 'HINTS',
            show: true,
            content: [make.text('Think of wine.')],
          },
        ],
      })),
    };
    const [repair] = allRepairs(helped, 'qti2.1').filter((r) => r.code === 'loss-feedback');
    expect(repair!.edits).to.deep.equal([{ op: 'feedback-plain', node: 'i', hints: true }]);
    expect(changesScores(repair!)).to.equal(false);
    const { holding: mended } = applyEdits(helped, repair!.edits);
    expect(forecast(mended, 'qti2.1').filter((f) => f.code === 'loss-feedback')).to.deep.equal([]);
    const back = await readAll(writeHolding(mended, 'qti2.1', () => null, nodePlatform).packages);
    const [item] = back.items;
    const shown = evaluate(item!, { [item!.responses[0]!.id]: ['A'] });
    const told = item!.feedback.filter((f) => shown.outcomes[f.outcome]?.values.includes(f.id));
    expect(told.map((f) => plain(f.content))).to.deep.equal(['Think of wine.']);
  });

  it('a bank is called what a cartridge can carry, and arrives so; a name it can carry is no loss', async () => {
    const of = (title: string): Holding =>
      make.holding({ banks: [{ id: 'b', title, items: [], metadata: [], origin: null }] });
    for (const title of ['Tides & “currents”', 'Luces y señales, 2.ª parte', '潮汐 とは']) {
      const [repair] = allRepairs(of(title), TARGET).filter((r) => r.code === 'loss-bank');
      const { holding: mended } = applyEdits(of(title), repair!.edits);
      expect(forecast(mended, TARGET), title).to.deep.equal([]);
    }
    expect(forecast(of('Señales'), TARGET)).to.deep.equal([]);
  });
});

describe('a test of several parts', () => {
  const one = (id: string): string =>
    itemXml21(
      id,
      '<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"><correctResponse>' +
        `<value>A</value></correctResponse></responseDeclaration>${SCORE}<itemBody><p>Which of ${id}?</p>` +
        '<choiceInteraction responseIdentifier="RESPONSE" shuffle="false" maxChoices="1">' +
        '<simpleChoice identifier="A">Yes</simpleChoice><simpleChoice identifier="B">No</simpleChoice>' +
        `</choiceInteraction></itemBody>${template21('match_correct')}`,
    );
  const part = (id: string, condition = ''): string =>
    `<testPart identifier="${id}" navigationMode="linear" submissionMode="individual">${condition}<assessmentSection identifier="s-${id}" title="" visible="true">` +
    `<assessmentItemRef identifier="r-${id}" href="${id}.xml"/></assessmentSection></testPart>`;
  const test = (inside: string): Promise<Holding> =>
    readZip({
      'a.xml': one('a'),
      'b.xml': one('b'),
      'test.xml': `<assessmentTest ${NS21} identifier="t" title="Two parts">${inside}</assessmentTest>`,
    });
  const TELLS =
    '<testFeedback identifier="f" access="atEnd" outcomeIdentifier="T" showHide="hide" title="Well">' +
    '<p>Well done.</p></testFeedback>';
  const ofQuiz = (holding: Holding) =>
    allRepairs(holding, 'qti1.2').filter((r) => r.node === 't' && r.code.startsWith('loss-'));

  it('becomes its sections where nobody scores otherwise, and arrives so', async () => {
    const holding = await test(`${part('a')}${part('b')}${TELLS}`);
    const repairs = ofQuiz(holding);
    expect(repairs.map((r) => r.code).sort()).to.deep.equal(['loss-feedback', 'loss-section']);
    expect(repairs.map(changesScores)).to.deep.equal([false, false]);
    const { holding: mended } = applyEdits(holding, repairs[0]!.edits);
    expect(forecast(mended, 'qti1.2')).to.deep.equal([]);
    const back = await readAll(writeHolding(mended, 'qti1.2', () => null, nodePlatform).packages);
    expect(comparePlanned(holding, mended, back).comparison.verdict).to.equal('intact');
    // Taken again, it is done already; taken back, all of it stands.
    expect(applyEdits(mended, repairs[0]!.edits).holding.quizzes).to.deep.equal(mended.quizzes);
    expect(holding.quizzes[0]!.test!.parts).to.have.length(2);
  });

  it('says that scores change where a part is shown to some alone', async () => {
    const only =
      '<preCondition><gt><variable identifier="r-a.SCORE"/><baseValue baseType="float">0</baseValue></gt></preCondition>';
    const holding = await test(`${part('a')}${part('b', only)}`);
    const [repair] = ofQuiz(holding).filter((r) => r.code === 'loss-settings');
    expect([repair!.edits.map((e) => e.op), changesScores(repair!)]).to.deep.equal([['test-plain'], true]);
  });

  it('says so too where the whole is not the sum of its questions', async () => {
    const twice =
      '<outcomeProcessing><setOutcomeValue identifier="SCORE"><product><sum>' +
      '<testVariables variableIdentifier="SCORE"/></sum><baseValue baseType="float">2</baseValue></product>' +
      '</setOutcomeValue></outcomeProcessing>';
    const holding = await test(
      `<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>${part('a')}${part('b')}${twice}`,
    );
    expect(ofQuiz(holding).map(changesScores)).to.deep.equal([true]);
  });
});
