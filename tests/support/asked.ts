import { itemXml21 as item, NS21, SCORE21 as SCORE, template21 } from './read.ts';

const declared = (id: string, type = 'string', correct = ''): string =>
  `<responseDeclaration identifier="${id}" cardinality="single" baseType="${type}">${correct}</responseDeclaration>`;
const CORRECT = template21('match_correct');

/** Where the picture stands that one of them shows. */
export const CHART = 'img/mapa de la ría.png';

/** What nothing in the package says the answer of: a choice, a word, a number, and one of two blanks. */
export const ASKED: Readonly<Record<string, string>> = {
  'choice.xml': item(
    'choice',
    `${declared('RESPONSE', 'identifier')}${SCORE}<itemBody>` +
      `<p>Which light is red? <img src="${encodeURI(CHART)}" alt="The ría" width="120" height="80"/></p>` +
      '<choiceInteraction responseIdentifier="RESPONSE" shuffle="false" maxChoices="1">' +
      '<simpleChoice identifier="A">Port</simpleChoice><simpleChoice identifier="B">Starboard</simpleChoice>' +
      `</choiceInteraction></itemBody>${CORRECT}`,
  ),
  'word.xml': item(
    'word',
    `${declared('RESPONSE')}${SCORE}<itemBody>` +
      `<p>The front of a ship: <textEntryInteraction responseIdentifier="RESPONSE"/></p></itemBody>${CORRECT}`,
  ),
  'number.xml': item(
    'number',
    `${declared('RESPONSE', 'float')}${SCORE}<itemBody>` +
      `<p>Minutes of a watch: <textEntryInteraction responseIdentifier="RESPONSE"/></p></itemBody>${CORRECT}`,
  ),
  'blanks.xml': item(
    'blanks',
    `${declared('R1')}${declared('R2')}${SCORE}<itemBody>` +
      '<p>In front the <textEntryInteraction responseIdentifier="R1"/>, behind the <textEntryInteraction responseIdentifier="R2"/>.</p>' +
      '</itemBody><responseProcessing><responseCondition><responseIf><stringMatch caseSensitive="false">' +
      '<variable identifier="R1"/><baseValue baseType="string">bow</baseValue></stringMatch>' +
      '<setOutcomeValue identifier="SCORE"><sum><variable identifier="SCORE"/>' +
      '<baseValue baseType="float">1</baseValue></sum></setOutcomeValue></responseIf></responseCondition>' +
      '</responseProcessing>',
  ),
};

/** All of them in a quiz of two sections. */
export const ASKED_QUIZ = [
  `<assessmentTest ${NS21} identifier="quiz" title="On board">`,
  '<testPart identifier="p" navigationMode="linear" submissionMode="individual">',
  '<assessmentSection identifier="s1" title="Lights" visible="true">' +
    '<assessmentItemRef identifier="r-choice" href="choice.xml"/></assessmentSection>',
  '<assessmentSection identifier="s2" title="Words" visible="true">',
  ...['word', 'number', 'blanks'].map((id) => `<assessmentItemRef identifier="r-${id}" href="${id}.xml"/>`),
  '</assessmentSection></testPart></assessmentTest>',
].join('');
