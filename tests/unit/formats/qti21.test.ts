import { expect } from 'chai';
import { evaluate, inspectReport, make, readHolding, writeHolding, type Answers } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { codes, item21, NS21, read, readZip } from '../../support/read.ts';

const respond = (attrs: string, inside = ''): string =>
  `<responseDeclaration identifier="RESPONSE" ${attrs}>${inside}</responseDeclaration>`;
const correct = (...values: string[]): string =>
  `<correctResponse>${values.map((v) => `<value>${v}</value>`).join('')}</correctResponse>`;
const SCORE = '<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>';
const choices = (ids: string[], max = 1): string =>
  `<itemBody><choiceInteraction responseIdentifier="RESPONSE" maxChoices="${max}"><prompt>Which?</prompt>${ids.map((i) => `<simpleChoice identifier="${i}">${i}</simpleChoice>`).join('')}</choiceInteraction></itemBody>`;
const entry = '<itemBody><p>How far? <textEntryInteraction responseIdentifier="RESPONSE"/></p></itemBody>';
const template = (name: string): string =>
  `<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/${name}"/>`;
const test = (expression: string, score = 1): string =>
  `<responseProcessing><responseCondition><responseIf>${expression}<setOutcomeValue identifier="SCORE"><baseValue baseType="float">${score}</baseValue></setOutcomeValue></responseIf></responseCondition></responseProcessing>`;
const single = respond('cardinality="single" baseType="identifier"', correct('B'));
const float = respond('cardinality="single" baseType="float"', correct('42'));
const V = '<variable identifier="RESPONSE"/><correct identifier="RESPONSE"/>';

describe('reading QTI 2.1', () => {
  const table: [what: string, xml: string, answers: (string | number)[][], expected: number[]][] = [
    [
      'match_correct',
      single + SCORE + choices(['A', 'B']) + template('match_correct'),
      [['A'], ['B'], []],
      [0, 1, 0],
    ],
    [
      'a template with .xml and a profile prefix',
      single + SCORE + choices(['A', 'B']) + template('CC2_match_correct.xml'),
      [['B']],
      [1],
    ],
    [
      'map_response with default and bounds',
      respond(
        'cardinality="multiple" baseType="identifier"',
        '<mapping lowerBound="0" upperBound="2" defaultValue="-2"><mapEntry mapKey="A" mappedValue="1"/><mapEntry mapKey="B" mappedValue="1.5"/></mapping>',
      ) +
        SCORE +
        choices(['A', 'B', 'C'], 0) +
        template('map_response'),
      [['A'], ['A', 'B'], ['A', 'C'], []],
      [1, 2, 0, 0],
    ],
    [
      'exact numbers',
      float + SCORE + entry + test(`<equal toleranceMode="exact">${V}</equal>`),
      [[42], [42.01]],
      [1, 0],
    ],
    [
      'absolute tolerance',
      float + SCORE + entry + test(`<equal toleranceMode="absolute" tolerance="0.5 1">${V}</equal>`, 2),
      [[41], [41.5], [42.5], [43]],
      [2, 2, 2, 0],
    ],
    [
      'open ends',
      float +
        SCORE +
        entry +
        test(
          `<equal toleranceMode="absolute" tolerance="1" includeLowerBound="false" includeUpperBound="false"><correct identifier="RESPONSE"/><variable identifier="RESPONSE"/></equal>`,
        ),
      [[41], [41.5], [43]],
      [0, 1, 0],
    ],
    [
      'a range by two comparisons',
      float +
        SCORE +
        entry +
        test(
          '<and><gte><variable identifier="RESPONSE"/><baseValue baseType="float">41</baseValue></gte><lte><variable identifier="RESPONSE"/><baseValue baseType="float">43</baseValue></lte></and>',
        ),
      [[41], [43], [43.1], []],
      [1, 1, 0, 0],
    ],
    [
      'NULL in a condition counts as false',
      float + SCORE + entry + test(`<not><equal toleranceMode="exact">${V}</equal></not>`),
      [[], [1], [42]],
      [0, 1, 0],
    ],
  ];
  for (const [what, xml, answers, expected] of table) {
    it(`scores ${what}`, async () => {
      const item = await item21(xml);
      expect(
        answers.map((values) => evaluate(item, { RESPONSE: values } as Answers).raw),
        what,
      ).to.deep.equal(expected);
    });
  }

  it('reads a test: parts, nested sections, selection, weights, limits, pass mark', async () => {
    const item = (id: string): string =>
      `<assessmentItem ${NS21} identifier="${id}" title="${id}">${single}${SCORE}${choices(['A', 'B'])}${template('match_correct')}</assessmentItem>`;
    const ref = (id: string, inside = ''): string =>
      `<assessmentItemRef identifier="r${id}" href="${id}.xml">${inside}</assessmentItemRef>`;
    const holding = await readZip({
      'test.xml': `<assessmentTest ${NS21} identifier="t" title="T"><outcomeDeclaration identifier="SCORE" masteryValue="3"/><timeLimits maxTime="600"/>
        <testPart identifier="p" navigationMode="linear" submissionMode="individual"><itemSessionControl maxAttempts="0"/>
        <assessmentSection identifier="s1" title="Outer" visible="true"><rubricBlock view="candidate"><p>Read all.</p></rubricBlock>${ref('a', '<weight identifier="W" value="3"/>')}
        <assessmentSection identifier="s2" title="Inner" visible="true"><selection select="1"/><ordering shuffle="true"/>${ref('b')}${ref('c')}</assessmentSection></assessmentSection></testPart></assessmentTest>`,
      'a.xml': item('a'),
      'b.xml': item('b'),
      'c.xml': item('c'),
    });
    const [quiz] = inspectReport(holding).quizzes;
    expect(quiz).to.deep.include({ title: 'T', items: 2, points: 4 });
    expect(
      quiz!.sections.map((s) => [s.title, s.shuffle, s.draw && [s.draw.pick, s.draw.of, s.draw.pointsEach]]),
    ).to.deep.equal([
      ['Outer', false, null],
      ['Outer / Inner', true, [1, 2, 1]],
    ]);
    expect(quiz!.settings).to.deep.include({
      attempts: 'unlimited',
      timeLimitMinutes: 10,
      passMark: 3,
      instructions: 'Read all.',
    });
    expect(holding.items.map((i) => i.points)).to.deep.equal([3, 1, 1]);
  });

  it('says which references lead to nothing, by file and line', async () => {
    const holding = await readZip({
      'test.xml': `<assessmentTest ${NS21} identifier="t"><testPart identifier="p"><assessmentSection identifier="s" title="S" visible="true">\n<assessmentItemRef identifier="x" href="gone.xml"/></assessmentSection></testPart></assessmentTest>`,
    });
    const found = holding.findings.find((f) => f.code === 'item-ref-missing')!;
    expect(found.where).to.include({ path: 'test.xml', line: 2 });
  });

  it('reads any prefix and no namespace at all', async () => {
    for (const xml of [
      `<q:assessmentItem xmlns:q="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="i" title="I"><q:itemBody><q:p>Hello</q:p></q:itemBody></q:assessmentItem>`,
      `<assessmentItem identifier="i" title="I"><itemBody><p>Hello</p></itemBody></assessmentItem>`,
    ]) {
      const holding = await read(xml);
      expect(inspectReport(holding).items[0]!.stem).to.equal('Hello');
    }
  });

  it('names a template it does not have', async () => {
    const holding = await read(
      `<assessmentItem ${NS21} identifier="i" title="I">${single}${SCORE}${choices(['A', 'B'])}<responseProcessing template="https://t.example.org/own_rule"/></assessmentItem>`,
    );
    expect(codes(holding)).to.include('template-unknown');
  });
});

describe('a package with nothing in it', () => {
  it('is QTI where its manifest says so, and not a format unknown', async () => {
    const written = writeHolding(make.holding({ title: 'Empty course' }), 'qti2.1', () => null, nodePlatform)
      .packages[0]!;
    const { format, findings, items } = await readHolding('empty.zip', written, nodePlatform);
    expect([format.standard, format.version, items.length, findings.map((f) => f.code)]).to.deep.equal([
      'qti',
      '2.1',
      0,
      [],
    ]);
  });
});
