import { harbourChart } from './pictures.ts';

/** One item of every kind of QTI 2, written by hand: coastal navigation again. */

const NS = 'xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1"';
const RP = 'http://www.imsglobal.org/question/qti_v2p1/rptemplates/';
const SCORE =
  '<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue><value>0</value></defaultValue></outcomeDeclaration>';
const values = (list: readonly string[]): string => list.map((v) => `<value>${v}</value>`).join('');
const correct = (...list: string[]): string => `<correctResponse>${values(list)}</correctResponse>`;
const mapping = (entries: Readonly<Record<string, number>>, attrs = 'defaultValue="0"'): string =>
  `<mapping ${attrs}>${Object.entries(entries)
    .map(([key, value]) => `<mapEntry mapKey="${key}" mappedValue="${value}"/>`)
    .join('')}</mapping>`;
const respond = (cardinality: string, baseType: string, inside = '', id = 'RESPONSE'): string =>
  `<responseDeclaration identifier="${id}" cardinality="${cardinality}" baseType="${baseType}">${inside}</responseDeclaration>`;
const use = (template: string): string => `<responseProcessing template="${RP}${template}"/>`;
const CHART =
  '<object data="../images/chart.png" type="image/png" width="320" height="200">A chart of a harbour</object>';
const BUOY =
  '<object data="../images/chart.png" type="image/png" width="24" height="24">A small mark</object>';
const choices = (name: string, list: Readonly<Record<string, string>>, attrs = ''): string =>
  Object.entries(list)
    .map(([id, text]) => `<${name} identifier="${id}" ${attrs}>${text}</${name}>`)
    .join('');

interface KindSample {
  readonly kind: string;
  readonly title: string;
  readonly xml: string;
  /** Full marks and what gives them, for tests. */
  readonly points: number;
  readonly key: readonly string[];
  readonly scoring: string;
}

const sample = (
  kind: string,
  title: string,
  points: number,
  key: readonly string[],
  scoring: string,
  declarations: string,
  body: string,
  processing: string,
): KindSample => ({
  kind,
  title,
  points,
  key,
  scoring,
  xml: `<?xml version="1.0" encoding="UTF-8"?>
<assessmentItem ${NS} identifier="kind-${kind}" title="${title}" adaptive="false" timeDependent="false">
${declarations}${SCORE}
<itemBody>${body}</itemBody>
${processing}
</assessmentItem>`,
});

const R = 'responseIdentifier="RESPONSE"';
const set = (value: number): string =>
  `<setOutcomeValue identifier="SCORE"><baseValue baseType="float">${value}</baseValue></setOutcomeValue>`;
const when = (test: string, value: number): string =>
  `<responseProcessing><responseCondition><responseIf>${test}${set(value)}</responseIf></responseCondition></responseProcessing>`;

export const KINDS: readonly KindSample[] = [
  sample(
    'choice',
    'Lights at anchor',
    1,
    ['One all-round white light'],
    'all-or-nothing',
    respond('single', 'identifier', correct('A')),
    `<choiceInteraction ${R} shuffle="true" maxChoices="1"><prompt>What does a small vessel at anchor show at night?</prompt>${choices('simpleChoice', { A: 'One all-round white light', B: 'Two red lights', C: 'A green light' })}</choiceInteraction>`,
    use('match_correct'),
  ),
  sample(
    'order',
    'A fix in order',
    1,
    ['Choose three marks', 'Take the bearings', 'Draw the lines', 'Note the time'],
    'all-or-nothing',
    respond('ordered', 'identifier', correct('C', 'B', 'L', 'T')),
    `<orderInteraction ${R} shuffle="true"><prompt>Put the steps of a three-point fix in order.</prompt>${choices('simpleChoice', { B: 'Take the bearings', C: 'Choose three marks', T: 'Note the time', L: 'Draw the lines' })}</orderInteraction>`,
    use('match_correct'),
  ),
  sample(
    'associate',
    'What belongs together',
    2,
    ['Ebb - Falling', 'Flood - Rising'],
    'per-choice',
    respond('multiple', 'pair', correct('E F', 'L R') + mapping({ 'E F': 1, 'L R': 1 })),
    `<associateInteraction ${R} shuffle="false" maxAssociations="2"><prompt>Which two belong together?</prompt>${choices('simpleAssociableChoice', { E: 'Ebb', F: 'Falling', L: 'Flood', R: 'Rising' }, 'matchMax="1"')}</associateInteraction>`,
    use('map_response'),
  ),
  sample(
    'match',
    'Lights and what they mean',
    3,
    [
      'Red over white -&gt; Fishing',
      'White over red -&gt; Pilot',
      'Red over red -&gt; Not under command',
    ].map((t) => t.replace('&gt;', '>')),
    'per-choice',
    respond(
      'multiple',
      'directedPair',
      correct('a x', 'b y', 'c z') +
        mapping({ 'a x': 1, 'b y': 1, 'c z': 1 }, 'lowerBound="0" defaultValue="-0.5"'),
    ),
    `<matchInteraction ${R} shuffle="false" maxAssociations="3"><prompt>Match the lights to the vessel.</prompt><simpleMatchSet>${choices('simpleAssociableChoice', { a: 'Red over white', b: 'White over red', c: 'Red over red' }, 'matchMax="1"')}</simpleMatchSet><simpleMatchSet>${choices('simpleAssociableChoice', { x: 'Fishing', y: 'Pilot', z: 'Not under command' }, 'matchMax="3"')}</simpleMatchSet></matchInteraction>`,
    use('map_response'),
  ),
  sample(
    'gapMatch',
    'The rule of twelfths',
    2,
    ['two -> gap 1', 'three -> gap 2'],
    'per-choice',
    respond('multiple', 'directedPair', correct('w g1', 't g2') + mapping({ 'w g1': 1, 't g2': 1 })),
    `<gapMatchInteraction ${R} shuffle="false"><prompt>Fill the gaps.</prompt>${choices('gapText', { o: 'one', w: 'two', t: 'three' }, 'matchMax="1"')}<p>In the second hour it rises <gap identifier="g1"/> twelfths, in the third <gap identifier="g2"/>.</p></gapMatchInteraction>`,
    use('map_response'),
  ),
  sample(
    'inlineChoice',
    'A line on the chart',
    1,
    ['isogonal'],
    'all-or-nothing',
    respond('single', 'identifier', correct('I')),
    `<p>A line of equal variation is called an <inlineChoiceInteraction ${R} shuffle="false">${choices('inlineChoice', { B: 'isobar', I: 'isogonal', T: 'isotherm' })}</inlineChoiceInteraction> line.</p>`,
    use('match_correct'),
  ),
  sample(
    'textEntry',
    'Distance made good',
    2,
    ['42.5'],
    'numeric',
    respond('single', 'float', correct('42.5')),
    `<p>12.5 knots for 3 hours 24 minutes makes <textEntryInteraction ${R} expectedLength="6"/> nautical miles.</p>`,
    when(
      `<equal toleranceMode="absolute" tolerance="0.5"><correct identifier="RESPONSE"/><variable identifier="RESPONSE"/></equal>`,
      2,
    ),
  ),
  sample(
    'extendedText',
    'Why three bearings',
    6,
    [],
    'manual',
    respond('single', 'string'),
    `<extendedTextInteraction ${R} expectedLines="6"><prompt>Why is a fix from three bearings better than one from two?</prompt></extendedTextInteraction>`,
    '',
  ),
  sample(
    'hottext',
    'The wrong word',
    1,
    ['port'],
    'all-or-nothing',
    respond('single', 'identifier', correct('P')),
    `<hottextInteraction ${R} maxChoices="1"><prompt>Pick the word that is wrong.</prompt><p>When you come in from the sea, <hottext identifier="S">red buoys</hottext> stand to <hottext identifier="P">port</hottext> of a vessel that <hottext identifier="L">leaves</hottext> (region A).</p></hottextInteraction>`,
    use('match_correct'),
  ),
  sample(
    'hotspot',
    'The harbour entrance',
    1,
    ['Entrance'],
    'all-or-nothing',
    respond('single', 'identifier', correct('E')),
    `<hotspotInteraction ${R} maxChoices="1"><prompt>Mark the harbour entrance.</prompt>${CHART}<hotspotChoice identifier="E" shape="circle" coords="160,60,20" hotspotLabel="Entrance"/><hotspotChoice identifier="Q" shape="rect" coords="20,20,80,60" hotspotLabel="Quay"/><hotspotChoice identifier="B" shape="poly" coords="200,120,260,120,230,170" hotspotLabel="Bank"/></hotspotInteraction>`,
    use('match_correct'),
  ),
  sample(
    'selectPoint',
    'Where you anchor',
    2,
    ['230 140'],
    'all-or-nothing',
    respond(
      'single',
      'point',
      `${correct('230 140')}<areaMapping defaultValue="0"><areaMapEntry shape="rect" coords="200,120,260,170" mappedValue="2"/></areaMapping>`,
    ),
    `<selectPointInteraction ${R} maxChoices="1"><prompt>Show where you would anchor.</prompt>${CHART}</selectPointInteraction>`,
    use('map_response_point'),
  ),
  sample(
    'graphicOrder',
    'Marks in passing',
    1,
    ['Bank', 'Quay', 'Entrance'],
    'all-or-nothing',
    respond('ordered', 'identifier', correct('B', 'Q', 'E')),
    `<graphicOrderInteraction ${R}><prompt>In which order do you pass them, from south to north?</prompt>${CHART}<hotspotChoice identifier="E" shape="circle" coords="160,60,20" hotspotLabel="Entrance"/><hotspotChoice identifier="Q" shape="rect" coords="20,20,80,60" hotspotLabel="Quay"/><hotspotChoice identifier="B" shape="rect" coords="200,120,260,170" hotspotLabel="Bank"/></graphicOrderInteraction>`,
    use('match_correct'),
  ),
  sample(
    'graphicAssociate',
    'A leading line',
    1,
    ['Entrance - Quay'],
    'all-or-nothing',
    respond('multiple', 'pair', correct('E Q')),
    `<graphicAssociateInteraction ${R} maxAssociations="1"><prompt>Which two marks make the leading line?</prompt>${CHART}<associableHotspot identifier="E" shape="circle" coords="160,60,20" hotspotLabel="Entrance" matchMax="1"/><associableHotspot identifier="Q" shape="rect" coords="20,20,80,60" hotspotLabel="Quay" matchMax="1"/><associableHotspot identifier="B" shape="rect" coords="200,120,260,170" hotspotLabel="Bank" matchMax="1"/></graphicAssociateInteraction>`,
    use('match_correct'),
  ),
  sample(
    'graphicGapMatch',
    'Names on the chart',
    2,
    ['Bar -> Entrance', 'Hard -> Quay'],
    'per-choice',
    respond('multiple', 'directedPair', correct('N E', 'H Q') + mapping({ 'N E': 1, 'H Q': 1 })),
    `<graphicGapMatchInteraction ${R}><prompt>Put the names where they belong.</prompt>${CHART}<gapText identifier="N" matchMax="1">Bar</gapText><gapText identifier="H" matchMax="1">Hard</gapText><associableHotspot identifier="E" shape="circle" coords="160,60,20" hotspotLabel="Entrance" matchMax="1"/><associableHotspot identifier="Q" shape="rect" coords="20,20,80,60" hotspotLabel="Quay" matchMax="1"/></graphicGapMatchInteraction>`,
    use('map_response'),
  ),
  sample(
    'positionObject',
    'Lay the buoy',
    1,
    ['160 60'],
    'all-or-nothing',
    respond(
      'single',
      'point',
      `${correct('160 60')}<areaMapping defaultValue="0"><areaMapEntry shape="circle" coords="160,60,12" mappedValue="1"/></areaMapping>`,
    ),
    `<p>Lay the buoy in the entrance.</p><positionObjectStage>${CHART}<positionObjectInteraction ${R} maxChoices="1">${BUOY}</positionObjectInteraction></positionObjectStage>`,
    use('map_response_point'),
  ),
  sample(
    'slider',
    'Compass course',
    1,
    ['208'],
    'numeric',
    respond('single', 'integer', correct('208')),
    `<sliderInteraction ${R} lowerBound="0" upperBound="360" step="1"><prompt>Compass course 214°, variation 6° W. Set the true course.</prompt></sliderInteraction>`,
    use('match_correct'),
  ),
  sample(
    'upload',
    'Hand in your passage plan',
    10,
    [],
    'manual',
    respond('single', 'file'),
    `<uploadInteraction ${R} type="application/pdf"><prompt>Hand in your passage plan.</prompt></uploadInteraction>`,
    '',
  ),
  sample(
    'drawing',
    'Draw the track',
    5,
    [],
    'manual',
    respond('single', 'file'),
    `<drawingInteraction ${R}><prompt>Draw the track into the harbour.</prompt>${CHART}</drawingInteraction>`,
    '',
  ),
  sample(
    'media',
    'A fog signal',
    0,
    [],
    'none',
    respond('single', 'integer'),
    `<mediaInteraction ${R} autostart="false" minPlays="1" maxPlays="3"><prompt>Listen to the signal.</prompt><object data="../images/signal.mp3" type="audio/mpeg"/></mediaInteraction>`,
    '',
  ),
  sample(
    'endAttempt',
    'Ask for a hint',
    1,
    ['true'],
    'all-or-nothing',
    respond('single', 'boolean'),
    `<p>Would you like a hint? <endAttemptInteraction ${R} title="Show a hint"/></p>`,
    when('<match><variable identifier="RESPONSE"/><baseValue baseType="boolean">true</baseValue></match>', 1),
  ),
];

/** Essays and uploads say what they are worth. */
const withMaximum = ({ xml, points, scoring }: KindSample): string =>
  scoring === 'manual'
    ? xml.replace(
        'baseType="float"><defaultValue>',
        `baseType="float" normalMaximum="${points}"><defaultValue>`,
      )
    : xml;

/** A QTI 2.1 package with an item of every kind, in one test. */
export function kindsPackage(): Record<string, string | Uint8Array> {
  const files: Record<string, string | Uint8Array> = {};
  for (const s of KINDS) files[`items/kind-${s.kind}.xml`] = withMaximum(s);
  files['images/chart.png'] = harbourChart();
  files['images/signal.mp3'] = new Uint8Array([0x49, 0x44, 0x33, 3, 0, 0, 0, 0, 0, 0]);
  const refs = KINDS.map(
    (s) => `<assessmentItemRef identifier="ref-${s.kind}" href="items/kind-${s.kind}.xml"/>`,
  );
  files['test.xml'] = `<?xml version="1.0" encoding="UTF-8"?>
<assessmentTest ${NS} identifier="every-kind" title="One of every kind"><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><testPart identifier="p1" navigationMode="nonlinear" submissionMode="simultaneous"><assessmentSection identifier="s1" title="All kinds" visible="true">${refs.join('')}</assessmentSection></testPart><outcomeProcessing><setOutcomeValue identifier="SCORE"><sum><testVariables variableIdentifier="SCORE"/></sum></setOutcomeValue></outcomeProcessing></assessmentTest>`;
  const resource = (id: string, type: string, href: string): string =>
    `<resource identifier="${id}" type="${type}" href="${href}"><file href="${href}"/></resource>`;
  files['imsmanifest.xml'] =
    `<?xml version="1.0" encoding="UTF-8"?><manifest xmlns="http://www.imsglobal.org/xsd/imscp_v1p1" identifier="M"><metadata><schema>QTIv2.1 Package</schema><schemaversion>1.0.0</schemaversion></metadata><organizations/><resources>${resource('T', 'imsqti_test_xmlv2p1', 'test.xml')}${KINDS.map((s) => resource(`R-${s.kind}`, 'imsqti_item_xmlv2p1', `items/kind-${s.kind}.xml`)).join('')}${resource('F1', 'webcontent', 'images/chart.png')}${resource('F2', 'webcontent', 'images/signal.mp3')}</resources></manifest>`;
  return files;
}
