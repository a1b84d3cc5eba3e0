import { expect } from 'chai';
import { inspectReport } from '@alforja/core';
import { read } from '../../support/read.ts';
import { differences, facets, item21, items12, material } from './support.ts';

const SCORE =
  '<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue><value>0</value></defaultValue></outcomeDeclaration>';
const map = (entries: Readonly<Record<string, number>>): string =>
  `<mapping lowerBound="0" defaultValue="0">${Object.entries(entries)
    .map(([k, v]) => `<mapEntry mapKey="${k}" mappedValue="${v}"/>`)
    .join('')}</mapping>`;
const MAPPED =
  '<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/map_response"/>';

const choiceOf = (entries: Readonly<Record<string, number>>, most: number, least = 0): string =>
  item21(
    `<responseDeclaration identifier="RESPONSE" cardinality="multiple" baseType="identifier">${map(entries)}</responseDeclaration>${SCORE}<itemBody><choiceInteraction responseIdentifier="RESPONSE" shuffle="false" maxChoices="${most}" minChoices="${least}"><prompt>Which?</prompt>${['A', 'B', 'C', 'D'].map((c) => `<simpleChoice identifier="${c}">${c} it is</simpleChoice>`).join('')}</choiceInteraction></itemBody>${MAPPED}`,
  );

const matchOf = (entries: Readonly<Record<string, number>>, rightMax = 1): string =>
  item21(
    `<responseDeclaration identifier="RESPONSE" cardinality="multiple" baseType="directedPair">${map(entries)}</responseDeclaration>${SCORE}<itemBody><matchInteraction responseIdentifier="RESPONSE" shuffle="false" maxAssociations="0"><prompt>Pair</prompt><simpleMatchSet>${['A', 'B'].map((c) => `<simpleAssociableChoice identifier="${c}" matchMax="1">left ${c}</simpleAssociableChoice>`).join('')}</simpleMatchSet><simpleMatchSet>${['X', 'Y'].map((c) => `<simpleAssociableChoice identifier="${c}" matchMax="${rightMax}">right ${c}</simpleAssociableChoice>`).join('')}</simpleMatchSet></matchInteraction></itemBody>${MAPPED}`,
  );

describe('answers that can be given', () => {
  it('alone decide: more choices than may be picked are no difference', async () => {
    // With two picks at most, a bonus for three is never paid.
    const plain = choiceOf({ A: 1, B: 1 }, 2);
    expect(
      await facets(plain, plain.replace('<outcomeDeclaration', '<!-- --><outcomeDeclaration')),
    ).to.deep.equal([]);
    const [found] = await differences(choiceOf({ A: 1, B: 1, C: -1 }, 2), choiceOf({ A: 1, B: 1, C: -2 }, 2));
    expect(found, 'A with C gives 0 on both sides').to.equal(undefined);
    expect(
      (await facets(choiceOf({ A: 2, B: 1, C: -1 }, 2), choiceOf({ A: 2, B: 1, C: -2 }, 2))).length,
    ).to.equal(1);
  });

  it('give an item its points: no more than may be picked', async () => {
    const points = async (xml: string): Promise<number> => inspectReport(await read(xml)).items[0]!.points;
    expect(await points(choiceOf({ A: 1, B: 1, C: 1 }, 2))).to.equal(2);
    expect(await points(choiceOf({ A: 1, B: 1, C: 1 }, 0))).to.equal(3);
    expect(await points(matchOf({ 'A X': 1, 'B X': 1 }, 1))).to.equal(1);
    expect(await points(matchOf({ 'A X': 1, 'B X': 1 }, 0))).to.equal(2);
  });

  it('of a match use each end as often as it may be used', async () => {
    // B with X counts only beside A with X, which cannot be: both want X.
    const a = matchOf({ 'A X': 1, 'B Y': 1 });
    expect(await facets(a, a)).to.deep.equal([]);
    const [found] = await differences(a, matchOf({ 'A Y': 1, 'B X': 1 }));
    expect(found!.facet).to.equal('key');
    for (const value of found!.example!.response['RESPONSE']!) expect(String(value)).to.match(/^[AB] [XY]$/u);
    expect(found!.example!.response['RESPONSE']!.length).to.be.at.most(2);
  });

  it('of an order name every step', async () => {
    const order = (right: string): string =>
      items12(
        `<presentation>${material('Order')}<response_lid ident="R" rcardinality="Ordered"><render_choice>${['A', 'B', 'C', 'D', 'E'].map((s) => `<response_label ident="${s}">${material(`Step ${s}`)}</response_label>`).join('')}</render_choice></response_lid></presentation><resprocessing><outcomes><decvar maxvalue="1"/></outcomes><respcondition><conditionvar>${right
          .split('')
          .map((v, n) => `<varequal respident="R" index="${n + 1}">${v}</varequal>`)
          .join('')}</conditionvar><setvar action="Set">1</setvar></respcondition></resprocessing>`,
      );
    const [found] = await differences(order('BADCE'), order('BADEC'));
    expect([found!.facet, found!.example!.response['R']!.length]).to.deep.equal(['key', 5]);
  });

  it('of a slider lie on its steps', async () => {
    const slider = (low: number): string =>
      item21(
        `<responseDeclaration identifier="R" cardinality="single" baseType="float"/>${SCORE}<itemBody><sliderInteraction responseIdentifier="R" lowerBound="0" upperBound="100" step="10"><prompt>How far?</prompt></sliderInteraction></itemBody><responseProcessing><responseCondition><responseIf><gte><variable identifier="R"/><baseValue baseType="float">${low}</baseValue></gte><setOutcomeValue identifier="SCORE"><baseValue baseType="float">1</baseValue></setOutcomeValue></responseIf></responseCondition></responseProcessing>`,
      );
    expect(await facets(slider(52), slider(58)), 'both begin at 60').to.deep.equal([]);
    expect((await facets(slider(52), slider(62))).length).to.be.greaterThan(0);
  });
});
