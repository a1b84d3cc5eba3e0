import { itemXml21, SCORE21, template21 } from './read.ts';

const declare = (id: string, type: string, more = ''): string =>
  `<templateDeclaration identifier="${id}" cardinality="single" baseType="${type}" ${more}/>`;
const setTo = (id: string, what: string): string =>
  `<setTemplateValue identifier="${id}">${what}</setTemplateValue>`;
const of = (id: string): string => `<variable identifier="${id}"/>`;

/**
 * A distance from a speed and a time, drawn anew for everybody: numbers in the text and in a formula, a part that
 * depends on them, a tolerance of 0.1, and never more than 100 miles.
 */
export const distanceItem = (id = 'run', low = 4, high = 15): string =>
  itemXml21(
    id,
    `<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="float"/>${SCORE21}` +
      declare('V', 'integer', 'mathVariable="true"') +
      declare('T', 'float') +
      declare('D', 'float') +
      declare('TIDE', 'identifier') +
      '<templateProcessing>' +
      setTo('V', `<randomInteger min="${low}" max="${high}"/>`) +
      setTo(
        'T',
        '<divide><randomInteger min="2" max="19"/><baseValue baseType="integer">4</baseValue></divide>',
      ) +
      setTo('D', `<product>${of('V')}${of('T')}</product>`) +
      `<templateConstraint><lte>${of('D')}<baseValue baseType="float">100</baseValue></lte></templateConstraint>` +
      `<templateCondition><templateIf><gt>${of('V')}<baseValue baseType="integer">9</baseValue></gt>` +
      setTo('TIDE', '<baseValue baseType="identifier">ebb</baseValue>') +
      `</templateIf><templateElse>${setTo('TIDE', '<baseValue baseType="identifier">flood</baseValue>')}</templateElse></templateCondition>` +
      `<setCorrectResponse identifier="RESPONSE">${of('D')}</setCorrectResponse>` +
      '</templateProcessing>' +
      '<itemBody><p>A boat runs <printedVariable identifier="T" format="%.2f"/> hours at ' +
      '<printedVariable identifier="V"/> knots' +
      '<templateInline templateIdentifier="TIDE" identifier="ebb" showHide="show"> on the ebb</templateInline>. ' +
      'With <math xmlns="http://www.w3.org/1998/Math/MathML"><mi>S</mi><mo>=</mo><mi>V</mi></math>, how far? ' +
      '<textEntryInteraction responseIdentifier="RESPONSE"/></p></itemBody>' +
      '<responseProcessing><responseCondition><responseIf>' +
      '<equal toleranceMode="absolute" tolerance="0.1"><variable identifier="RESPONSE"/><variable identifier="D"/></equal>' +
      '<setOutcomeValue identifier="SCORE"><baseValue baseType="float">2</baseValue></setOutcomeValue>' +
      '</responseIf></responseCondition></responseProcessing>',
    'Distance run',
  );

/** A choice whose right one, and one of the wrong ones, depend on what is drawn: two versions in all. */
export const sideItem = (id = 'side'): string =>
  itemXml21(
    id,
    `<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"/>${SCORE21}` +
      declare('SIDE', 'identifier') +
      '<templateProcessing>' +
      setTo(
        'SIDE',
        '<random><multiple><baseValue baseType="identifier">port</baseValue><baseValue baseType="identifier">starboard</baseValue></multiple></random>',
      ) +
      `<setCorrectResponse identifier="RESPONSE">${of('SIDE')}</setCorrectResponse>` +
      '</templateProcessing>' +
      '<itemBody><p>A light is seen to <printedVariable identifier="SIDE"/>. Where is it?</p>' +
      '<choiceInteraction responseIdentifier="RESPONSE" maxChoices="1" shuffle="true">' +
      '<simpleChoice identifier="port">left</simpleChoice><simpleChoice identifier="starboard">right</simpleChoice>' +
      '<simpleChoice identifier="ahead" templateIdentifier="SIDE" showHide="show">never shown</simpleChoice>' +
      '</choiceInteraction></itemBody>' +
      template21('match_correct'),
    'Side',
  );
