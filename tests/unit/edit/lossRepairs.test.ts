import { expect } from 'chai';
import {
  allRepairs,
  changesScores,
  comparePlanned,
  compareHoldings,
  forecast,
  mend,
  readHolding,
  writeHolding,
  type Finding,
  type Holding,
  type Target,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { demoFiles } from '../../../demo/packages.ts';
import { NS21, readZip } from '../../support/read.ts';
import { readAll } from '../../support/losses.ts';

const item = (id: string, inside: string): string =>
  `<assessmentItem ${NS21} identifier="${id}" title="Item ${id}" adaptive="false" timeDependent="false">${inside}</assessmentItem>`;
const score = '<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>';
const mapped = (cardinality: string, type: string, entries: Readonly<Record<string, number>>): string => {
  const key = Object.keys(entries).filter((k) => entries[k]! > 0);
  return `<responseDeclaration identifier="RESPONSE" cardinality="${cardinality}" baseType="${type}"><correctResponse>${key.map((k) => `<value>${k}</value>`).join('')}</correctResponse><mapping defaultValue="0">${Object.entries(
    entries,
  )
    .map(([k, v]) => `<mapEntry mapKey="${k}" mappedValue="${v}"/>`)
    .join('')}</mapping></responseDeclaration>${score}`;
};
const MAP =
  '<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/map_response"/>';
const set = (ids: string, words: Readonly<Record<string, string>>): string =>
  `<simpleMatchSet>${[...ids].map((id) => `<simpleAssociableChoice identifier="${id}" matchMax="2">${words[id]!}</simpleAssociableChoice>`).join('')}</simpleMatchSet>`;

/** A matching of two, a number with a tolerance in per cent, and choices with points of their own. */
const three = (): Promise<Holding> =>
  readZip({
    'match.xml': item(
      'match',
      `${mapped('multiple', 'directedPair', { 'A x': 1, 'B y': 2 })}<itemBody><matchInteraction responseIdentifier="RESPONSE" shuffle="false" maxAssociations="2"><prompt>What do they mean?</prompt>${set('AB', { A: 'A cone, point up', B: 'A ball' })}${set('xy', { x: 'Under sail', y: 'At anchor' })}</matchInteraction></itemBody>${MAP}`,
    ),
    'number.xml': item(
      'number',
      `<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="float"><correctResponse><value>40</value></correctResponse></responseDeclaration>${score}<itemBody><p>How far off, in miles? <textEntryInteraction responseIdentifier="RESPONSE"/></p></itemBody><responseProcessing><responseCondition><responseIf><equal toleranceMode="relative" tolerance="5"><correct identifier="RESPONSE"/><variable identifier="RESPONSE"/></equal><setOutcomeValue identifier="SCORE"><baseValue baseType="float">3</baseValue></setOutcomeValue></responseIf></responseCondition></responseProcessing>`,
    ),
    'parts.xml': item(
      'parts',
      `${mapped('multiple', 'identifier', { A: 2, B: 1, C: -1 })}<itemBody><p>Which of these are fixed marks?</p><choiceInteraction responseIdentifier="RESPONSE" shuffle="false" maxChoices="0"><simpleChoice identifier="A">Beacon</simpleChoice><simpleChoice identifier="B">Lighthouse</simpleChoice><simpleChoice identifier="C">Buoy</simpleChoice></choiceInteraction></itemBody>${MAP}`,
    ),
  });

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
    const back = await readAll(writeHolding(mended, TARGET, () => null).packages);
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
