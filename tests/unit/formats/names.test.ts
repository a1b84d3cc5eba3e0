import { expect } from 'chai';
import {
  compareHoldings,
  evaluate,
  inspectReport,
  keyTexts,
  parseAnswers,
  recognise,
  scoreReport,
  TARGETS,
  writeHolding,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { item21, NS21, read } from '../../support/read.ts';

/** Identifiers that every object answers to by itself (ECMA-262, 20.1.3 and annex B.2.2). */
const NAMES = ['constructor', 'valueOf', 'toString', '__proto__', 'hasOwnProperty', 'isPrototypeOf'];

const single = (id: string, other: string): string => `
  <responseDeclaration identifier="${id}" cardinality="single" baseType="identifier">
    <correctResponse><value>${id}</value></correctResponse></responseDeclaration>
  <outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue><value>0</value></defaultValue></outcomeDeclaration>
  <itemBody><choiceInteraction responseIdentifier="${id}" maxChoices="1" shuffle="false">
    <simpleChoice identifier="${id}">one</simpleChoice><simpleChoice identifier="${other}">two</simpleChoice></choiceInteraction></itemBody>
  <responseProcessing><responseCondition><responseIf><match><variable identifier="${id}"/><correct identifier="${id}"/></match>
    <setOutcomeValue identifier="SCORE"><baseValue baseType="float">2</baseValue></setOutcomeValue></responseIf></responseCondition></responseProcessing>`;

const mapped = (id: string): string => `
  <responseDeclaration identifier="${id}" cardinality="multiple" baseType="identifier">
    <correctResponse><value>${id}</value></correctResponse>
    <mapping defaultValue="0"><mapEntry mapKey="${id}" mappedValue="2"/></mapping></responseDeclaration>
  <outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>
  <itemBody><choiceInteraction responseIdentifier="${id}" maxChoices="0" shuffle="false">
    <simpleChoice identifier="${id}">one</simpleChoice><simpleChoice identifier="other">two</simpleChoice></choiceInteraction></itemBody>
  <responseProcessing><setOutcomeValue identifier="SCORE"><mapResponse identifier="${id}"/></setOutcomeValue></responseProcessing>`;

describe('names that every object answers to are only names', () => {
  for (const [at, id] of NAMES.entries()) {
    const other = NAMES[(at + 1) % NAMES.length]!;
    it(`${id}: is read, keyed and scored`, async () => {
      for (const item of [await item21(single(id, other)), await item21(mapped(id))]) {
        expect(keyTexts(item, recognise(item))).to.deep.equal(['one']);
        expect(evaluate(item, parseAnswers(item, [`${id}=${id}`])).score).to.equal(2);
        expect(evaluate(item, {}).score).to.equal(0);
        expect(scoreReport(item, parseAnswers(item, [])).score).to.equal(0);
      }
    });

    it(`${id}: is written in every format and comes back intact`, async () => {
      const xml = `<assessmentItem ${NS21} identifier="${id}" title="${id}" adaptive="false" timeDependent="false">${single(id, other)}</assessmentItem>`;
      const holding = await read(xml);
      expect(inspectReport(holding).items[0]).to.deep.include({ key: ['one'], points: 2 });
      for (const target of TARGETS) {
        const { packages } = writeHolding(holding, target, () => null, nodePlatform);
        const back = await read(packages[0]!, 'back.zip');
        expect(compareHoldings(holding, back).counts, target).to.deep.equal({
          intact: 1,
          altered: 0,
          missing: 0,
          extra: 0,
        });
      }
    });
  }

  it('elements that bear them are kept as unknown ones', async () => {
    const holding = await read(
      '<questestinterop><item ident="a"><presentation><material><constructor>x</constructor><mattext>Q</mattext></material></presentation></item></questestinterop>',
    );
    expect(holding.items.length).to.equal(1);
  });
});
