/**
 * Items with the figures that they have to give, each with its source. Two readers that know nothing of one
 * another are held to them: the application's, and that of the simulated course systems.
 */
export interface Figure {
  readonly source: string;
  readonly format: 'qti1.2' | 'qti2.1';
  /** One `item` or `assessmentItem`. */
  readonly xml: string;
  readonly points: number;
  /** An answer (choice identifiers, a text or a number; none at all) and what it gives, in points. */
  readonly rows: readonly (readonly [answer: readonly string[], score: number])[];
}

const text12 = (t: string): string => `<material><mattext texttype="text/plain">${t}</mattext></material>`;
const label = (id: string): string =>
  `<response_label ident="${id}">${text12(`Mark ${id}`)}</response_label>`;
const lid = (cardinality: string, ...ids: string[]): string =>
  `<response_lid ident="R" rcardinality="${cardinality}"><render_choice>${ids.map(label).join('')}</render_choice></response_lid>`;
const fib = (kind: 'str' | 'num'): string =>
  `<response_${kind} ident="R"><render_fib${kind === 'num' ? ' fibtype="Decimal"' : ''}/></response_${kind}>`;
const equal = (v: string, more = ''): string => `<varequal respident="R"${more}>${v}</varequal>`;
const rule = (test: string, set: string, goesOn = ''): string =>
  `<respcondition${goesOn}><conditionvar>${test}</conditionvar><setvar action="${set.split(' ')[0]}">${set.split(' ')[1]}</setvar></respcondition>`;
const item12 = (response: string, bounds: string, rules: string, meta = ''): string =>
  `<item ident="i1" title="One">${meta}<presentation>${text12('Which?')}${response}</presentation><resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal" ${bounds}/></outcomes>${rules}</resprocessing></item>`;
const ON = ' continue="Yes"';

const NS = 'xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1"';
const TEMPLATES = 'http://www.imsglobal.org/question/qti_v2p1/rptemplates';
const SCORE =
  '<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue><value>0</value></defaultValue></outcomeDeclaration>';
const item21 = (declaration: string, body: string, processing: string): string =>
  `<assessmentItem ${NS} identifier="i1" title="One" adaptive="false" timeDependent="false">${declaration}${SCORE}<itemBody>${body}</itemBody>${processing}</assessmentItem>`;
const template = (name: string): string => `<responseProcessing template="${TEMPLATES}/${name}"/>`;
const choices = (most: number, ...ids: string[]): string =>
  `<choiceInteraction responseIdentifier="R" shuffle="true" maxChoices="${most}">${ids.map((i) => `<simpleChoice identifier="${i}">Element ${i}</simpleChoice>`).join('')}</choiceInteraction>`;
const ENTRY = '<p>Here: <textEntryInteraction responseIdentifier="R" expectedLength="15"/></p>';
const declared = (cardinality: string, type: string, inside: string): string =>
  `<responseDeclaration identifier="R" cardinality="${cardinality}" baseType="${type}">${inside}</responseDeclaration>`;
const correct = (...values: string[]): string =>
  `<correctResponse>${values.map((v) => `<value>${v}</value>`).join('')}</correctResponse>`;
const set = (n: number): string =>
  `<setOutcomeValue identifier="SCORE"><baseValue baseType="float">${n}</baseValue></setOutcomeValue>`;

export const FIGURES: readonly Figure[] = [
  {
    source: 'QTI 1.2 ASI Information Model, "varequal": case has the default No (from memory)',
    format: 'qti1.2',
    xml: item12(fib('str'), 'maxvalue="1"', rule(equal('Slack'), 'Set 1')),
    points: 1,
    rows: [
      [['Slack'], 1],
      [['SLACK'], 1],
      [['slack water'], 0],
      [[], 0],
    ],
  },
  {
    source: 'QTI 1.2 ASI Information Model, "varequal": case="Yes" keeps it (from memory)',
    format: 'qti1.2',
    xml: item12(fib('str'), 'maxvalue="1"', rule(equal('MHWS', ' case="Yes"'), 'Set 1')),
    points: 1,
    rows: [
      [['MHWS'], 1],
      [['mhws'], 0],
    ],
  },
  {
    source:
      'QTI 1.2 ASI Information Model, "respcondition": continue has the default No, so the first that fits ends it (from memory)',
    format: 'qti1.2',
    xml: item12(fib('str'), 'maxvalue="2"', rule(equal('tide'), 'Set 2') + rule(equal('tide'), 'Set 1')),
    points: 2,
    rows: [
      [['tide'], 2],
      [['ebb'], 0],
    ],
  },
  {
    source:
      'QTI 1.2 ASI Information Model, "decvar": the score is kept between minvalue and maxvalue at the end (from memory)',
    format: 'qti1.2',
    xml: item12(
      lid('Multiple', 'A', 'B', 'C'),
      'minvalue="0" maxvalue="2"',
      rule(equal('A'), 'Add 1', ON) + rule(equal('B'), 'Add 1', ON) + rule(equal('C'), 'Subtract 1', ON),
    ),
    points: 2,
    rows: [
      [['A', 'B'], 2],
      [['A', 'B', 'C'], 1],
      [['A'], 1],
      [['C'], 0],
      [[], 0],
    ],
  },
  {
    source: 'QTI 1.2 ASI Best Practice Guide, "Multiple response": exactly these by and, not (from memory)',
    format: 'qti1.2',
    xml: item12(
      lid('Multiple', 'A', 'B', 'C', 'D'),
      'minvalue="0" maxvalue="3"',
      rule(`<and>${equal('B')}${equal('D')}<not>${equal('A')}</not><not>${equal('C')}</not></and>`, 'Set 3'),
    ),
    points: 3,
    rows: [
      [['B', 'D'], 3],
      [['B'], 0],
      [['B', 'D', 'A'], 0],
      [['A', 'B', 'C', 'D'], 0],
    ],
  },
  {
    source:
      'QTI 1.2 ASI Information Model, "vargte", "varlt": the one end belongs to the range, the other not (from memory)',
    format: 'qti1.2',
    xml: item12(
      fib('num'),
      'maxvalue="2"',
      rule('<and><vargte respident="R">3.2</vargte><varlt respident="R">3.4</varlt></and>', 'Set 2'),
    ),
    points: 2,
    rows: [
      [['3.2'], 2],
      [['3.3'], 2],
      [['3.4'], 0],
      [['3.1'], 0],
    ],
  },
  {
    source: 'QTI 1.2 ASI Information Model, "varequal" of a response_num compares numbers (from memory)',
    format: 'qti1.2',
    xml: item12(fib('num'), 'maxvalue="1"', rule(equal('42'), 'Set 1')),
    points: 1,
    rows: [
      [['42'], 1],
      [['42.0'], 1],
      [['41.9'], 0],
    ],
  },
  {
    source: 'Common Cartridge 1.3, "QTI profile": SCORE is a percentage of cc_weighting (from memory)',
    format: 'qti1.2',
    xml: item12(
      lid('Single', 'A', 'B'),
      'minvalue="0" maxvalue="100"',
      rule(equal('B'), 'Set 100'),
      '<itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>cc_weighting</fieldlabel><fieldentry>4</fieldentry></qtimetadatafield></qtimetadata></itemmetadata>',
    ),
    points: 4,
    rows: [
      [['B'], 4],
      [['A'], 0],
    ],
  },
  {
    source:
      'QTI 2.1 Implementation Guide, 3.1 "Simple items": match_correct gives 1 for the key (from memory)',
    format: 'qti2.1',
    xml: item21(
      declared('single', 'identifier', correct('A')),
      choices(1, 'A', 'B', 'C'),
      template('match_correct'),
    ),
    points: 1,
    rows: [
      [['A'], 1],
      [['B'], 0],
      [[], 0],
    ],
  },
  {
    source:
      'QTI 2.1 Implementation Guide, 3.2 "Composite of water": mapping 0 to 2, default -2 (from memory)',
    format: 'qti2.1',
    xml: item21(
      declared(
        'multiple',
        'identifier',
        `${correct('H', 'O')}<mapping lowerBound="0" upperBound="2" defaultValue="-2"><mapEntry mapKey="H" mappedValue="1"/><mapEntry mapKey="O" mappedValue="1"/><mapEntry mapKey="Cl" mappedValue="-1"/></mapping>`,
      ),
      choices(0, 'H', 'He', 'C', 'O', 'N', 'Cl'),
      template('map_response'),
    ),
    points: 2,
    rows: [
      [['H', 'O'], 2],
      [['H', 'O', 'Cl'], 1],
      [['H', 'O', 'He'], 0],
      [['H'], 1],
      [['Cl'], 0],
      [[], 0],
    ],
  },
  {
    source: 'QTI 2.1 Information Model, "mapEntry": caseSensitive has the default true (from memory)',
    format: 'qti2.1',
    xml: item21(
      declared(
        'single',
        'string',
        `${correct('York')}<mapping defaultValue="0"><mapEntry mapKey="York" mappedValue="1"/><mapEntry mapKey="york" mappedValue="0.5"/></mapping>`,
      ),
      ENTRY,
      template('map_response.xml'),
    ),
    points: 1,
    rows: [
      [['York'], 1],
      [['york'], 0.5],
      [['YORK'], 0],
    ],
  },
  {
    source:
      'QTI 2.1 Information Model, "equal": the second lies between the first less t0 and the first and t1, its bounds included unless said otherwise (from memory)',
    format: 'qti2.1',
    xml: item21(
      declared('single', 'float', correct('42.5')),
      ENTRY,
      `<responseProcessing><responseCondition><responseIf><equal toleranceMode="absolute" tolerance="0.5 1" includeUpperBound="false"><variable identifier="R"/><correct identifier="R"/></equal>${set(3)}</responseIf><responseElse>${set(0)}</responseElse></responseCondition></responseProcessing>`,
    ),
    points: 3,
    rows: [
      [['42'], 3],
      [['43'], 3],
      [['41.75'], 3],
      [['43.25'], 0],
      [['41.5'], 0],
    ],
  },
  {
    source:
      'QTI 2.1 Information Model, "choiceInteraction": a match of several choices is by content, in any order (from memory)',
    format: 'qti2.1',
    xml: item21(
      declared('multiple', 'identifier', correct('A', 'C')),
      choices(0, 'A', 'B', 'C'),
      `<responseProcessing><responseCondition><responseIf><match><variable identifier="R"/><correct identifier="R"/></match>${set(2)}</responseIf></responseCondition></responseProcessing>`,
    ),
    points: 2,
    rows: [
      [['C', 'A'], 2],
      [['A'], 0],
      [['A', 'B', 'C'], 0],
    ],
  },
];
