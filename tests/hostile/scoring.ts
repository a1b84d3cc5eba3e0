import { itemXml21, NS21, SCORE21, zip } from '../support/read.ts';
import { many, stored, type Hostile } from './hostile.ts';

/** Programs of QTI 2 that ask for more steps than a question needs. */

const response = (baseType: string, cardinality = 'single', correct: readonly string[] = []): string =>
  `<responseDeclaration identifier="R" cardinality="${cardinality}" baseType="${baseType}">${
    correct.length > 0
      ? `<correctResponse>${correct.map((c) => `<value>${c}</value>`).join('')}</correctResponse>`
      : ''
  }</responseDeclaration>`;
const body = '<itemBody><p>How far? <textEntryInteraction responseIdentifier="R"/></p></itemBody>';
const number = (n: number | string): string => `<baseValue baseType="float">${n}</baseValue>`;
const score = (value: string): string => `<setOutcomeValue identifier="SCORE">${value}</setOutcomeValue>`;
const program = (rules: string): string => `<responseProcessing>${rules}</responseProcessing>`;
const when = (test: string, then = score(number(1))): string =>
  `<responseCondition><responseIf>${test}${then}</responseIf></responseCondition>`;
const GOOD = (id: string): string =>
  itemXml21(
    id,
    `${response('float', 'single', ['5'])}${SCORE21}${body}${program(when(`<equal><variable identifier="R"/><correct identifier="R"/></equal>`))}`,
  );
/** The item beside one that nothing is wrong with: that one has to be read. */
const beside = (bad: string): Uint8Array => stored({ 'bad.xml': bad, 'good.xml': GOOD('good') });
const item = (inside: string): Uint8Array => beside(itemXml21('bad', inside));
const nest = (depth: number, inner: string): string =>
  `${'<repeat numberRepeats="1000">'.repeat(depth)}${inner}${'</repeat>'.repeat(depth)}`;
const values = (count: number, of: (at: number) => string = String): string[] =>
  Array.from({ length: count }, (_, at) => of(at));
const sized = (interaction: string): string => `<itemBody>${interaction}</itemBody>`;
const choices = (count: number, tag = 'simpleChoice'): string =>
  many(count, (at) => `<${tag} identifier="C${at}" matchMax="1">c${at}</${tag}>`);
const MATCH = program(when('<match><variable identifier="R"/><correct identifier="R"/></match>'));
const read = { items: 1 };

export const SCORING: readonly Hostile[] = [
  {
    name: 'repeat within repeat, six deep',
    make: () =>
      item(`${response('float')}${SCORE21}${body}${program(score(`<sum>${nest(6, number(1))}</sum>`))}`),
  },
  {
    name: 'operators over a million values',
    make: () =>
      item(
        `${response('float', 'multiple', values(200_000))}${SCORE21}${body}${program(when('<contains><correct identifier="R"/><correct identifier="R"/></contains>') + when('<match><correct identifier="R"/><correct identifier="R"/></match>') + score('<max><correct identifier="R"/></max>'))}`,
      ),
  },
  {
    name: 'an order within an order',
    make: () =>
      item(
        `${response(
          'float',
          'ordered',
          values(50_000, () => '1'),
        )}${SCORE21}${body}${program(many(50, () => when('<contains><correct identifier="R"/><correct identifier="R"/></contains>')))}`,
      ),
  },
  {
    name: 'five thousand declarations, each used',
    make: () =>
      item(
        `${response('float')}${SCORE21}${many(5000, (n) => `<outcomeDeclaration identifier="O${n}" cardinality="single" baseType="float"/>`)}${body}${program(many(5000, (n) => `<setOutcomeValue identifier="O${n}"><variable identifier="O${(n * 7) % 5000}"/></setOutcomeValue>`))}`,
      ),
  },
  {
    name: 'a place of a thousand million',
    make: () =>
      item(
        `${response('identifier', 'ordered')}${SCORE21}${sized(`<orderInteraction responseIdentifier="R">${choices(3)}</orderInteraction>`)}${program(when('<match><index n="1000000000"><variable identifier="R"/></index><baseValue baseType="identifier">C1</baseValue></match>'))}`,
      ),
  },
  {
    name: 'conditions a hundred deep',
    make: () =>
      item(
        `${response('float')}${SCORE21}${body}${program(`${'<responseCondition><responseIf><isNull><variable identifier="R"/></isNull>'.repeat(60)}${score(number(1))}${'</responseIf></responseCondition>'.repeat(60)}`)}`,
      ),
  },
  {
    name: 'patterns that backtrack',
    make: () =>
      item(
        `${response('string', 'single', ['aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa!'])}${SCORE21}${body}${program(when('<patternMatch pattern="(a|a|aa)*b"><variable identifier="R"/></patternMatch>') + when('<patternMatch pattern="(([a-z]+)+)+(x|xx)*$"><variable identifier="R"/></patternMatch>'))}`,
      ),
  },
  {
    name: 'patterns that count to a million',
    make: () =>
      item(
        `${response('string')}${SCORE21}${body}${program(many(300, (n) => when(`<patternMatch pattern="((a{100}){100}){100}b${n}"><variable identifier="R"/></patternMatch>`) + when(`<patternMatch pattern="(a{30}){30}c${n}"><variable identifier="R"/></patternMatch>`)))}`,
      ),
  },
  {
    name: 'two thousand classes taken from categories',
    make: () =>
      item(
        `${response('string')}${SCORE21}${body}${program(many(2000, (n) => when(`<patternMatch pattern="[\\p{L}-[a-z${n}]]+"><variable identifier="R"/></patternMatch>`)))}`,
      ),
  },
  {
    name: 'a constraint that is never met',
    make: () =>
      item(
        `${response('float')}${SCORE21}<templateDeclaration identifier="T" cardinality="ordered" baseType="float"/>${body}<templateProcessing><setTemplateValue identifier="T">${nest(2, '<randomFloat min="0" max="1"/>')}</setTemplateValue><templateConstraint><gt>${number(0)}${number(1)}</gt></templateConstraint></templateProcessing>${MATCH}`,
      ),
  },
  {
    name: 'a mapping of fifty thousand entries',
    make: () =>
      item(
        `<responseDeclaration identifier="R" cardinality="multiple" baseType="string"><mapping defaultValue="0">${many(50_000, (n) => `<mapEntry mapKey="k${n}" mappedValue="1" caseSensitive="false"/>`)}</mapping></responseDeclaration>${SCORE21}${body}${program(score('<mapResponse identifier="R"/>'))}`,
      ),
  },
  {
    name: 'an area of a hundred thousand corners',
    make: () =>
      item(
        `<responseDeclaration identifier="R" cardinality="multiple" baseType="point"><areaMapping defaultValue="0">${many(40, (n) => `<areaMapEntry shape="poly" coords="${values(20_000, (at) => String((at * 37 + n) % 400)).join(',')}" mappedValue="1"/>`)}</areaMapping></responseDeclaration>${SCORE21}${sized('<selectPointInteraction responseIdentifier="R" maxChoices="0"><object data="x.png" type="image/png" width="400" height="400"/></selectPointInteraction>')}${program(score('<mapResponsePoint identifier="R"/>'))}`,
      ),
  },
  {
    name: 'a text of two million letters, compared a thousand times',
    make: () =>
      item(
        `${response('string', 'single', ['x'.repeat(2_000_000)])}${SCORE21}${body}${program(many(1000, () => when('<stringMatch caseSensitive="false" substring="true"><correct identifier="R"/><correct identifier="R"/></stringMatch>')))}`,
      ),
  },
  {
    name: 'a table of a hundred thousand lines',
    make: () =>
      item(
        `${response('float')}<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><interpolationTable>${many(100_000, (n) => `<interpolationTableEntry sourceValue="${100_000 - n}" targetValue="${n}"/>`)}</interpolationTable></outcomeDeclaration>${body}${program(`<lookupOutcomeValue identifier="SCORE"><variable identifier="R"/></lookupOutcomeValue>`)}`,
      ),
  },
  {
    name: 'twenty thousand things to put in order',
    slow: true,
    make: () =>
      item(
        `${response(
          'identifier',
          'ordered',
          values(20_000, (n) => `C${n}`),
        )}${SCORE21}${sized(`<orderInteraction responseIdentifier="R">${choices(20_000)}</orderInteraction>`)}${MATCH}`,
      ),
  },
  {
    name: 'twenty thousand choices, half of them right',
    slow: true,
    make: () =>
      item(
        `${response(
          'identifier',
          'multiple',
          values(10_000, (n) => `C${n * 2}`),
        )}${SCORE21}${sized(`<choiceInteraction responseIdentifier="R" maxChoices="0">${choices(20_000)}</choiceInteraction>`)}${MATCH}`,
      ),
  },
  {
    name: 'five thousand times five thousand pairs',
    make: () =>
      item(
        `${response(
          'directedPair',
          'multiple',
          values(5000, (n) => `C${n} D${n}`),
        )}${SCORE21}${sized(`<matchInteraction responseIdentifier="R" maxAssociations="0"><simpleMatchSet>${choices(5000, 'simpleAssociableChoice')}</simpleMatchSet><simpleMatchSet>${many(5000, (n) => `<simpleAssociableChoice identifier="D${n}" matchMax="1">d${n}</simpleAssociableChoice>`)}</simpleMatchSet></matchInteraction>`)}${MATCH}`,
      ),
  },
  {
    name: 'five thousand things that go with one another',
    make: () =>
      item(
        `${response(
          'pair',
          'multiple',
          values(2500, (n) => `C${2 * n} C${2 * n + 1}`),
        )}${SCORE21}${sized(`<associateInteraction responseIdentifier="R" maxAssociations="0">${choices(5000, 'simpleAssociableChoice')}</associateInteraction>`)}${MATCH}`,
      ),
  },
  {
    name: 'three thousand gaps',
    make: () =>
      item(
        `${response(
          'directedPair',
          'multiple',
          values(3000, (n) => `C${n} G${n}`),
        )}${SCORE21}${sized(`<gapMatchInteraction responseIdentifier="R">${choices(3000, 'gapText')}<p>${many(3000, (n) => `x <gap identifier="G${n}"/> `)}</p></gapMatchInteraction>`)}${MATCH}`,
      ),
  },
  {
    name: 'three thousand blanks',
    slow: true,
    make: () =>
      item(
        `${many(3000, (n) => `<responseDeclaration identifier="R${n}" cardinality="single" baseType="string"><correctResponse><value>a${n}</value></correctResponse></responseDeclaration>`)}${SCORE21}${sized(`<p>${many(3000, (n) => `x <textEntryInteraction responseIdentifier="R${n}"/> `)}</p>`)}${program(many(3000, (n) => when(`<match><variable identifier="R${n}"/><correct identifier="R${n}"/></match>`, score(`<sum><variable identifier="SCORE"/>${number(1)}</sum>`))))}`,
      ),
  },
  {
    name: 'a slider of a thousand million steps',
    make: () =>
      item(
        `${response('float')}${SCORE21}${sized('<sliderInteraction responseIdentifier="R" lowerBound="0" upperBound="1000000000" step="0.000000001"/>')}${program(score('<variable identifier="R"/>'))}`,
      ),
  },
  {
    name: 'figures and widths without end',
    make: () =>
      item(
        `${response('float')}${SCORE21}<templateDeclaration identifier="T" cardinality="single" baseType="float"><defaultValue><value>1</value></defaultValue></templateDeclaration><itemBody><p><printedVariable identifier="T" format="%999999999.999999999f"/><textEntryInteraction responseIdentifier="R"/></p></itemBody>${program(score('<roundTo roundingMode="decimalPlaces" figures="1e308"><variable identifier="R"/></roundTo>') + when('<equalRounded figures="999999999" roundingMode="significantFigures"><variable identifier="R"/><variable identifier="T"/></equalRounded>'))}`,
      ),
  },
  { name: 'two thousand questions, each just within its steps', slow: true, make: () => utf8Zip(2000) },
  {
    name: 'hints and texts for fifty thousand outcomes',
    make: () =>
      item(
        `${response('identifier', 'single', ['C1'])}${SCORE21}<outcomeDeclaration identifier="FEEDBACK" cardinality="multiple" baseType="identifier"/>${sized(`<choiceInteraction responseIdentifier="R" maxChoices="1">${choices(500)}</choiceInteraction>`)}${program(many(500, (n) => when(`<match><variable identifier="R"/><baseValue baseType="identifier">C${n}</baseValue></match>`, `<setOutcomeValue identifier="FEEDBACK"><multiple><variable identifier="FEEDBACK"/><baseValue baseType="identifier">F${n}</baseValue></multiple></setOutcomeValue>`)))}${many(5000, (n) => `<modalFeedback outcomeIdentifier="FEEDBACK" identifier="F${n}" showHide="show">f${n}</modalFeedback>`)}`,
      ),
  },
].map((h) => ({ file: `${h.name.replace(/\W+/gu, '-')}.zip`, then: read, ...h }));

/** Each asks for as much as a run may take, and there are many. */
function utf8Zip(count: number): Uint8Array {
  const costly = `${response('float', 'single', ['5'])}${SCORE21}${body}${program(many(8, () => score(`<sum>${nest(1, number(1))}${nest(1, '<variable identifier="R"/>')}<variable identifier="SCORE"/></sum>`)))}`;
  const files = Object.fromEntries(
    Array.from({ length: count }, (_, at) => [`i${at}.xml`, itemXml21(`i${at}`, costly)] as const),
  );
  return zip({ ...files, 'good.xml': GOOD('good') });
}

/** A test that refers to twenty thousand items, and to itself. */
export const TESTS: readonly Hostile[] = [
  {
    name: 'a test of twenty thousand references, and sections that hold themselves',
    file: 'test-of-itself.zip',
    then: read,
    make: () =>
      zip({
        'test.xml': `<assessmentTest ${NS21} identifier="t" title="T"><testPart identifier="p" navigationMode="linear" submissionMode="individual"><assessmentSection identifier="s" title="S" visible="true">${many(20_000, (n) => `<assessmentItemRef identifier="r${n}" href="${n % 2 === 0 ? 'good' : `missing${n}`}.xml"/>`)}<assessmentSectionRef identifier="x" href="section.xml"/></assessmentSection></testPart></assessmentTest>`,
        'section.xml': `<assessmentSection ${NS21} identifier="x" title="X" visible="true"><assessmentSectionRef identifier="y" href="section.xml"/><assessmentItemRef identifier="g" href="good.xml"/></assessmentSection>`,
        'good.xml': GOOD('good'),
      }),
  },
];
