import { expect } from 'chai';
import temml from 'temml';
import { evaluate, inspectReport, type Answers } from '@alforja/core';
import { item21, NS21, read } from '../support/read.ts';

/**
 * More figures of the IMS QTI 2.1 Implementation Guide (final, 2012), section 3 "Items", and of the QTI 2.1
 * Information Model. From memory; the texts of the items are our own.
 */
const SCORE =
  '<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue><value>0</value></defaultValue></outcomeDeclaration>';
const MAP =
  '<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/map_response"/>';
const POINT =
  '<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/map_response_point"/>';
const entries = (map: Readonly<Record<string, number>>): string =>
  Object.entries(map)
    .map(([k, v]) => `<mapEntry mapKey="${k}" mappedValue="${v}"/>`)
    .join('');
const set = (list: readonly string[], name = 'simpleAssociableChoice'): string =>
  list.map((id) => `<${name} identifier="${id}" matchMax="4">${id}</${name}>`).join('');

async function scores(xml: string, rows: readonly [string[], number][]): Promise<void> {
  const item = await item21(xml);
  for (const [given, score] of rows)
    expect(
      evaluate(item, (given.length > 0 ? { RESPONSE: given } : {}) as Answers).raw,
      given.join(),
    ).to.equal(score);
}

describe('QTI 2.1 Implementation Guide: more worked examples', () => {
  it('3.2 "Match": entries 1, 0.5, 0.5 and 1 make a maximum of 3', async () => {
    const xml = `<responseDeclaration identifier="RESPONSE" cardinality="multiple" baseType="directedPair"><correctResponse><value>C R</value><value>D M</value><value>L M</value><value>P T</value></correctResponse><mapping defaultValue="0">${entries({ 'C R': 1, 'D M': 0.5, 'L M': 0.5, 'P T': 1 })}</mapping></responseDeclaration>${SCORE}<itemBody><matchInteraction responseIdentifier="RESPONSE" maxAssociations="4"><simpleMatchSet>${set(['C', 'D', 'L', 'P'])}</simpleMatchSet><simpleMatchSet>${set(['M', 'R', 'T'])}</simpleMatchSet></matchInteraction></itemBody>${MAP}`;
    await scores(xml, [
      [['C R', 'D M', 'L M', 'P T'], 3],
      [['C R', 'D M'], 1.5],
      [['C M'], 0],
      [[], 0],
    ]);
    const report = inspectReport(
      await read(`<assessmentItem ${NS21} identifier="i" title="I">${xml}</assessmentItem>`),
    );
    expect(report.items[0]).to.deep.include({ points: 3, pointsExact: true });
  });

  it('3.2 "Gap match": default -1, lower bound 0, entries 1 and 2', () =>
    scores(
      `<responseDeclaration identifier="RESPONSE" cardinality="multiple" baseType="directedPair"><correctResponse><value>W G1</value><value>Su G2</value></correctResponse><mapping defaultValue="-1" lowerBound="0">${entries({ 'W G1': 1, 'Su G2': 2 })}</mapping></responseDeclaration>${SCORE}<itemBody><gapMatchInteraction responseIdentifier="RESPONSE">${set(['W', 'Sp', 'Su', 'A'], 'gapText')}<p>Now is the <gap identifier="G1"/> of it, <gap identifier="G2"/>.</p></gapMatchInteraction></itemBody>${MAP}`,
      [
        [['W G1', 'Su G2'], 3],
        [['W G1', 'A G2'], 0],
        [['Su G2', 'A G1'], 1],
        [['A G1'], 0],
      ],
    ));

  it('3.2 "Slider": from 0 to 100 by match_correct', async () => {
    const item = await item21(
      `<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="integer"><correctResponse><value>16</value></correctResponse></responseDeclaration>${SCORE}<itemBody><sliderInteraction responseIdentifier="RESPONSE" lowerBound="0" upperBound="100" step="1"/></itemBody><responseProcessing template="match_correct"/>`,
    );
    expect([15, 16, 17].map((n) => evaluate(item, { RESPONSE: [n] }).raw)).to.deep.equal([0, 1, 0]);
  });

  it('Information Model, "mapResponsePoint": each area once, the default for each point in none, borders inside', () =>
    scores(
      `<responseDeclaration identifier="RESPONSE" cardinality="multiple" baseType="point"><areaMapping defaultValue="-1" lowerBound="-2"><areaMapEntry shape="circle" coords="100,100,10" mappedValue="2"/><areaMapEntry shape="rect" coords="10,10,20,20" mappedValue="1"/></areaMapping></responseDeclaration>${SCORE}<itemBody><selectPointInteraction responseIdentifier="RESPONSE" maxChoices="0"><object data="a.png" type="image/png" width="200" height="200"/></selectPointInteraction></itemBody>${POINT}`,
      [
        [['100 100', '101 101'], 2],
        [['110 100', '10 20'], 3],
        [['111 100'], -1],
        [['0 0', '1 1', '2 2', '3 3'], -2],
      ],
    ));

  it('Information Model, "statsOperator" and "mathOperator": textbook values (mean 5, population SD 2 of 2 4 4 4 5 5 7 9; common practice)', async () => {
    const list = `<multiple>${[2, 4, 4, 4, 5, 5, 7, 9].map((n) => `<baseValue baseType="float">${n}</baseValue>`).join('')}</multiple>`;
    const run = async (expr: string): Promise<number> =>
      evaluate(
        await item21(
          `${SCORE}<itemBody/><responseProcessing><setOutcomeValue identifier="SCORE">${expr}</setOutcomeValue></responseProcessing>`,
        ),
        {},
      ).raw;
    expect(await run(`<statsOperator name="mean">${list}</statsOperator>`)).to.equal(5);
    expect(await run(`<statsOperator name="popSD">${list}</statsOperator>`)).to.equal(2);
    expect(await run(`<statsOperator name="sampleVariance">${list}</statsOperator>`)).to.be.closeTo(
      32 / 7,
      1e-12,
    );
    expect(await run('<mathOperator name="toDegrees"><mathConstant name="pi"/></mathOperator>')).to.equal(
      180,
    );
    expect(
      await run(
        '<gcd><baseValue baseType="integer">48</baseValue><baseValue baseType="integer">36</baseValue></gcd>',
      ),
    ).to.equal(12);
    expect(
      await run(
        '<lcm><baseValue baseType="integer">4</baseValue><baseValue baseType="integer">6</baseValue></lcm>',
      ),
    ).to.equal(12);
  });
});

describe('mathematics', () => {
  it('keeps what a general-purpose renderer makes of LaTeX, element by element (MathML 3, chapter 3)', async () => {
    for (const tex of [
      '\\frac{D}{S}',
      'x^2_i',
      '\\sqrt{a^2+b^2}',
      '\\begin{matrix}1&2\\\\3&4\\end{matrix}',
      '\\sum_{i=1}^{n} i',
    ]) {
      const made = temml.renderToString(tex, { xml: true, annotate: false });
      const item = await item21(`<itemBody><p>${made}</p></itemBody>`);
      const names = (text: string): string[] => [...text.matchAll(/"name":"(m\w+)"/gu)].map((m) => m[1]!);
      const expected = [...made.matchAll(/<(m\w+)/gu)].map((m) => m[1]!).filter((n) => n !== 'math');
      expect(names(JSON.stringify(item.body))).to.deep.equal(expected, tex);
    }
  });
});
