import { itemXml21 as item, NS21, template21 } from './read.ts';

const score = '<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>';
const mapped = (cardinality: string, type: string, entries: Readonly<Record<string, number>>): string => {
  const key = Object.keys(entries).filter((k) => entries[k]! > 0);
  return `<responseDeclaration identifier="RESPONSE" cardinality="${cardinality}" baseType="${type}"><correctResponse>${key.map((k) => `<value>${k}</value>`).join('')}</correctResponse><mapping defaultValue="0">${Object.entries(
    entries,
  )
    .map(([k, v]) => `<mapEntry mapKey="${k}" mappedValue="${v}"/>`)
    .join('')}</mapping></responseDeclaration>${score}`;
};
const MAP = template21('map_response');
const set = (ids: string, words: Readonly<Record<string, string>>): string =>
  `<simpleMatchSet>${[...ids].map((id) => `<simpleAssociableChoice identifier="${id}" matchMax="2">${words[id]!}</simpleAssociableChoice>`).join('')}</simpleMatchSet>`;

/**
 * A matching of two, a number with a tolerance in per cent, and choices with points of their own: what a
 * cartridge has no place for.
 */
export const THREE_LOSSES: Readonly<Record<string, string>> = {
  'match.xml': item(
    'match',
    `${mapped('multiple', 'directedPair', { 'A x': 1, 'B y': 2 })}<itemBody>` +
      '<matchInteraction responseIdentifier="RESPONSE" shuffle="false" maxAssociations="2">' +
      `<prompt>What do they mean?</prompt>${set('AB', { A: 'A cone, point up', B: 'A ball' })}${set('xy', { x: 'Under sail', y: 'At anchor' })}</matchInteraction>` +
      `</itemBody>${MAP}`,
  ),
  'number.xml': item(
    'number',
    '<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="float"><correctResponse>' +
      `<value>40</value></correctResponse></responseDeclaration>${score}<itemBody>` +
      '<p>How far off, in miles? <textEntryInteraction responseIdentifier="RESPONSE"/></p></itemBody>' +
      '<responseProcessing><responseCondition><responseIf><equal toleranceMode="relative" tolerance="5">' +
      '<correct identifier="RESPONSE"/><variable identifier="RESPONSE"/></equal>' +
      '<setOutcomeValue identifier="SCORE"><baseValue baseType="float">3</baseValue></setOutcomeValue>' +
      '</responseIf></responseCondition></responseProcessing>',
  ),
  'parts.xml': item(
    'parts',
    `${mapped('multiple', 'identifier', { A: 2, B: 1, C: -1 })}<itemBody>` +
      '<p>Which of these are fixed marks?</p>' +
      '<choiceInteraction responseIdentifier="RESPONSE" shuffle="false" maxChoices="0">' +
      '<simpleChoice identifier="A">Beacon</simpleChoice><simpleChoice identifier="B">Lighthouse</simpleChoice>' +
      `<simpleChoice identifier="C">Buoy</simpleChoice></choiceInteraction></itemBody>${MAP}`,
  ),
};

/** The three in a quiz of one section without a title, which a cartridge has room for. */
export const THREE_QUIZ = [
  `<assessmentTest ${NS21} identifier="quiz" title="Marks and distances">`,
  '<testPart identifier="p" navigationMode="linear" submissionMode="individual">',
  '<assessmentSection identifier="s" title="" visible="true">',
  ...['match', 'number', 'parts'].map((id) => `<assessmentItemRef identifier="r-${id}" href="${id}.xml"/>`),
  '</assessmentSection></testPart></assessmentTest>',
].join('');
