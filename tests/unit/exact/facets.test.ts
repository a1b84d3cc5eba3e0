import { expect } from 'chai';
import { inspectReport } from '@alforja/core';
import { NS21, read, readZip, type Files } from '../../support/read.ts';
import { compared, facets } from './support.ts';

const NS3 = 'xmlns="http://www.imsglobal.org/xsd/imsqtiasi_v3p0"';
const OBJECT = '<object data="c.png" type="image/png" width="100" height="80">Chart</object>';
const declare = (type: string, cardinality = 'multiple', correct: readonly string[] = []): string =>
  `<responseDeclaration identifier="RESPONSE" cardinality="${cardinality}" baseType="${type}">${correct.length > 0 ? `<correctResponse>${correct.map((v) => `<value>${v}</value>`).join('')}</correctResponse>` : ''}</responseDeclaration><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>`;
const MATCH =
  '<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/match_correct"/>';

const graphic = (declared: string, interaction: string, attributes = ''): Files => ({
  'i.xml': `<assessmentItem ${NS21} identifier="i1" title="One" adaptive="false" timeDependent="false" ${attributes}>${declared}<itemBody>${interaction}</itemBody>${MATCH}</assessmentItem>`,
  'c.png': 'chart',
});
const spot = (name: string, id: string, coords: string, extra = ''): string =>
  `<${name} identifier="${id}" shape="rect" coords="${coords}" ${extra}/>`;

const item3 = (inside: string, extra: Files = {}): Files => ({
  'i.xml': `<qti-assessment-item ${NS3} identifier="i1" title="One" adaptive="false" time-dependent="false">${inside}</qti-assessment-item>`,
  ...extra,
});
const BODY3 = '<qti-item-body><p>What?</p></qti-item-body>';

const quiz = (inside: string, head = ''): Files => ({
  't.xml': `<assessmentTest ${NS21} identifier="t" title="T"><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float" ${head}/><testPart identifier="p" navigationMode="linear" submissionMode="individual"><assessmentSection identifier="s" title="S" visible="true"/></testPart>${inside}</assessmentTest>`,
});

/** What is changed, before and after, and the one facet that says so. */
const ITEMS: readonly (readonly [string, Files, Files, string])[] = [
  [
    'the area of a hotspot',
    graphic(
      declare('identifier', 'single', ['A']),
      `<hotspotInteraction responseIdentifier="RESPONSE" maxChoices="1">${OBJECT}${spot('hotspotChoice', 'A', '0,0,10,10')}${spot('hotspotChoice', 'B', '20,0,30,10')}</hotspotInteraction>`,
    ),
    graphic(
      declare('identifier', 'single', ['A']),
      `<hotspotInteraction responseIdentifier="RESPONSE" maxChoices="1">${OBJECT}${spot('hotspotChoice', 'A', '0,0,10,15')}${spot('hotspotChoice', 'B', '20,0,30,10')}</hotspotInteraction>`,
    ),
    'choices',
  ],
  [
    'the right hotspot, called otherwise',
    graphic(
      declare('identifier', 'single', ['A']),
      `<hotspotInteraction responseIdentifier="RESPONSE" maxChoices="1">${OBJECT}${spot('hotspotChoice', 'A', '0,0,10,10')}${spot('hotspotChoice', 'B', '20,0,30,10')}</hotspotInteraction>`,
    ),
    graphic(
      declare('identifier', 'single', ['x1']),
      `<hotspotInteraction responseIdentifier="RESPONSE" maxChoices="1">${OBJECT}${spot('hotspotChoice', 'x1', '20,0,30,10')}${spot('hotspotChoice', 'x2', '0,0,10,10')}</hotspotInteraction>`,
    ),
    'key',
  ],
  [
    'the order of places in a picture',
    graphic(
      declare('identifier', 'ordered', ['A', 'B']),
      `<graphicOrderInteraction responseIdentifier="RESPONSE">${OBJECT}${spot('hotspotChoice', 'A', '0,0,10,10')}${spot('hotspotChoice', 'B', '20,0,30,10')}</graphicOrderInteraction>`,
    ),
    graphic(
      declare('identifier', 'ordered', ['B', 'A']),
      `<graphicOrderInteraction responseIdentifier="RESPONSE">${OBJECT}${spot('hotspotChoice', 'A', '0,0,10,10')}${spot('hotspotChoice', 'B', '20,0,30,10')}</graphicOrderInteraction>`,
    ),
    'key',
  ],
  [
    'what is joined in a picture',
    graphic(
      declare('pair', 'multiple', ['A B']),
      `<graphicAssociateInteraction responseIdentifier="RESPONSE" maxAssociations="2">${OBJECT}${['A', 'B', 'C'].map((id, at) => spot('associableHotspot', id, `${at * 20},0,${at * 20 + 9},9`, 'matchMax="2"')).join('')}</graphicAssociateInteraction>`,
    ),
    graphic(
      declare('pair', 'multiple', ['B C']),
      `<graphicAssociateInteraction responseIdentifier="RESPONSE" maxAssociations="2">${OBJECT}${['A', 'B', 'C'].map((id, at) => spot('associableHotspot', id, `${at * 20},0,${at * 20 + 9},9`, 'matchMax="2"')).join('')}</graphicAssociateInteraction>`,
    ),
    'key',
  ],
  [
    'the end of a slider',
    graphic(
      declare('integer', 'single', ['5']),
      '<sliderInteraction responseIdentifier="RESPONSE" lowerBound="0" upperBound="10" step="1"><prompt>How far?</prompt></sliderInteraction>',
    ),
    graphic(
      declare('integer', 'single', ['5']),
      '<sliderInteraction responseIdentifier="RESPONSE" lowerBound="0" upperBound="20" step="1"><prompt>How far?</prompt></sliderInteraction>',
    ),
    'choices',
  ],
  [
    'whether attempts build on one another',
    graphic(
      declare('identifier', 'single', ['A']),
      '<choiceInteraction responseIdentifier="RESPONSE" maxChoices="1" shuffle="false"><simpleChoice identifier="A">a</simpleChoice></choiceInteraction>',
    ),
    {
      'i.xml': (
        graphic(
          declare('identifier', 'single', ['A']),
          '<choiceInteraction responseIdentifier="RESPONSE" maxChoices="1" shuffle="false"><simpleChoice identifier="A">a</simpleChoice></choiceInteraction>',
        )['i.xml'] as string
      ).replace('adaptive="false"', 'adaptive="true"'),
      'c.png': 'chart',
    },
    'kind',
  ],
  [
    'what a catalog says',
    item3(
      `${BODY3}<qti-catalog-info><qti-catalog id="c1"><qti-card support="spoken"><qti-html-content>What?</qti-html-content></qti-card></qti-catalog></qti-catalog-info>`,
    ),
    item3(
      `${BODY3}<qti-catalog-info><qti-catalog id="c1"><qti-card support="spoken"><qti-html-content>Which?</qti-html-content></qti-card></qti-catalog></qti-catalog-info>`,
    ),
    'wording',
  ],
  [
    'what is given to work with',
    item3(
      `<qti-companion-materials-info><qti-calculator><qti-calculator-type>basic</qti-calculator-type><qti-description>One</qti-description></qti-calculator></qti-companion-materials-info>${BODY3}`,
    ),
    item3(
      `<qti-companion-materials-info><qti-calculator><qti-calculator-type>scientific</qti-calculator-type><qti-description>One</qti-description></qti-calculator></qti-companion-materials-info>${BODY3}`,
    ),
    'files',
  ],
  [
    'a passage that items share',
    item3(`<qti-assessment-stimulus-ref identifier="s" href="s.xml"/>${BODY3}`, {
      's.xml': `<qti-assessment-stimulus ${NS3} identifier="s" title="P"><qti-stimulus-body><p>At dusk.</p></qti-stimulus-body></qti-assessment-stimulus>`,
    }),
    item3(`<qti-assessment-stimulus-ref identifier="s" href="s.xml"/>${BODY3}`, {
      's.xml': `<qti-assessment-stimulus ${NS3} identifier="s" title="P"><qti-stimulus-body><p>At dawn.</p></qti-stimulus-body></qti-assessment-stimulus>`,
    }),
    'wording',
  ],
];

const template = (low: number, high: number): Files => ({
  'i.xml': `<assessmentItem ${NS21} identifier="i1" title="One" adaptive="false" timeDependent="false"><responseDeclaration identifier="R" cardinality="single" baseType="integer"/><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><templateDeclaration identifier="N" cardinality="single" baseType="integer" paramVariable="true"/><templateProcessing><setTemplateValue identifier="N"><randomInteger min="${low}" max="${high}"/></setTemplateValue><setCorrectResponse identifier="R"><variable identifier="N"/></setCorrectResponse></templateProcessing><itemBody><p>Type <printedVariable identifier="N"/>: <textEntryInteraction responseIdentifier="R"/></p></itemBody><responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/match_correct"/></assessmentItem>`,
});

describe('every facet', () => {
  for (const [what, from, to, facet] of ITEMS)
    it(`of an item is held to the other side: ${what}`, async () => {
      expect(await facets(from, from)).to.deep.equal([]);
      expect(await facets(from, to)).to.deep.equal([facet]);
    });

  it('of a parameterised item: from where to where its numbers are drawn', async () => {
    expect(await facets(template(1, 1000), template(1, 1000))).to.deep.equal([]);
    expect(await facets(template(1, 1000), template(1, 2000))).to.not.deep.equal([]);
  });

  const quizFacets = async (from: Files, to: Files): Promise<string[]> =>
    (await compared(from, to)).containers[0]!.differences.map((d) => d.facet);
  const told = (text: string, access = 'atEnd'): string =>
    `<testFeedback access="${access}" outcomeIdentifier="SCORE" identifier="x" showHide="show"><p>${text}</p></testFeedback>`;

  it('of a quiz: its pass mark, what it tells at the end, and when', async () => {
    expect(await quizFacets(quiz('', 'masteryValue="5"'), quiz('', 'masteryValue="6"'))).to.deep.equal([
      'pass-mark',
    ]);
    expect(await quizFacets(quiz(told('Well sailed')), quiz(told('Well sailed')))).to.deep.equal([]);
    expect(await quizFacets(quiz(told('Well sailed')), quiz(told('Aground')))).to.deep.equal(['feedback']);
    expect(await quizFacets(quiz(told('Well sailed')), quiz(told('Well sailed', 'during')))).to.deep.equal([
      'feedback',
    ]);
  });
});

describe('wrappers of QTI 3', () => {
  it('are understood wherever they stand', async () => {
    const wrap = (text: string): string => `<qti-content-body><p>${text}</p></qti-content-body>`;
    const held = await readZip({
      't.xml': `<qti-assessment-test ${NS3} identifier="t" title="T"><qti-test-part identifier="p" navigation-mode="linear" submission-mode="individual"><qti-assessment-section identifier="s" title="S" visible="true"><qti-rubric-block view="candidate">${wrap('Read all')}</qti-rubric-block><qti-assessment-item-ref identifier="r" href="i.xml"/></qti-assessment-section></qti-test-part><qti-test-feedback access="at-end" outcome-identifier="SCORE" identifier="x" show-hide="show">${wrap('Over')}</qti-test-feedback></qti-assessment-test>`,
      ...item3(
        `<qti-outcome-declaration identifier="F" cardinality="single" base-type="identifier"/><qti-template-declaration identifier="V" cardinality="single" base-type="identifier"/><qti-item-body><article><header>Head</header><p>Body</p></article><qti-rubric-block view="scorer">${wrap('Scorer')}</qti-rubric-block><qti-template-block template-identifier="V" identifier="on" show-hide="show">${wrap('Drawn')}</qti-template-block><qti-feedback-block outcome-identifier="F" identifier="f" show-hide="show">${wrap('Block')}</qti-feedback-block></qti-item-body><qti-modal-feedback outcome-identifier="F" identifier="f" show-hide="show">${wrap('Modal')}</qti-modal-feedback>`,
      ),
    });
    const report = inspectReport(held);
    expect(held.findings.map((f) => f.code)).to.not.include('opaque-content');
    expect(report.quizzes[0]!.settings.instructions).to.equal('Read all');
    expect([report.items[0]!.stem, report.items[0]!.feedback]).to.deep.equal(['Head Body Drawn', 2]);
  });
});

describe('names are only names', () => {
  const HOSTILE = ['constructor', '__proto__', 'toString', 'valueOf', 'hasOwnProperty'];
  it('of items, responses, choices, outcomes and files', async () => {
    for (const name of HOSTILE) {
      const files: Files = {
        [`${name}.xml`]: `<assessmentItem ${NS21} identifier="${name}" title="One" adaptive="false" timeDependent="false"><responseDeclaration identifier="${name}" cardinality="single" baseType="identifier"><correctResponse><value>${name}</value></correctResponse></responseDeclaration><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><outcomeDeclaration identifier="${name}x" cardinality="single" baseType="float"/><itemBody><p>Which? <img src="${name}.png" alt="x"/></p><choiceInteraction responseIdentifier="${name}" maxChoices="1" shuffle="false"><simpleChoice identifier="${name}">a</simpleChoice><simpleChoice identifier="b">b</simpleChoice></choiceInteraction></itemBody><responseProcessing><responseCondition><responseIf><match><variable identifier="${name}"/><correct identifier="${name}"/></match><setOutcomeValue identifier="SCORE"><baseValue baseType="float">1</baseValue></setOutcomeValue></responseIf></responseCondition></responseProcessing></assessmentItem>`,
        [`${name}.png`]: 'picture',
      };
      const [item] = inspectReport(await readZip(files)).items;
      expect([item!.id, item!.key, item!.points, item!.files], name).to.deep.equal([
        name,
        ['a'],
        1,
        [{ path: `${name}.png`, present: true }],
      ]);
      expect((await compared(files, files)).verdict).to.equal('intact');
    }
  });

  it('of keys in JSON and columns of tables; and JSON of any depth is read or refused, never a stack trace', async () => {
    const level = (id: string, score: number): string =>
      `{"identifier":"${id}","score":${score},"quality":"${id}"}`;
    const rubric = (extra: string): string =>
      `{"__proto__":{"x":1},"CFRubrics":[{"identifier":"__proto__","title":"constructor","CFRubricCriteria":[{"identifier":"toString","description":"valueOf","CFRubricCriterionLevels":[${level('hasOwnProperty', 1)},${level('constructor', 0)}]}]}],"constructor":${extra}}`;
    const deep = `${'['.repeat(200_000)}${']'.repeat(200_000)}`;
    for (const extra of ['5', deep, `${'{"a":'.repeat(100_000)}1${'}'.repeat(100_000)}`]) {
      const held = await read(rubric(extra), 'r.json');
      expect(held.rubrics.map((r) => r.title)).to.deep.equal(['constructor']);
    }
    const table = await read(
      'rubric,criterion,level 1,points 1,constructor,__proto__\nA,B,C,1,x,y\n',
      'r.csv',
    );
    expect(table.rubrics[0]!.criteria[0]!.title).to.equal('B');
  });
});
