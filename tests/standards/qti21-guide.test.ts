import { XmlDocument, type XmlElement } from 'libxml2-wasm';
import { expect } from 'chai';
import { evaluate, writeHolding, type Answers } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { unzipSync, strFromU8 } from 'fflate';
import { item21, readZip } from '../support/read.ts';

/**
 * Figures of the worked examples in the IMS QTI 2.1 Implementation Guide (final, 2012), section 3 "Items".
 * The figures are from memory; the texts of the items are our own.
 */
const SCORE =
  '<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"><defaultValue><value>0</value></defaultValue></outcomeDeclaration>';
const MAP =
  '<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/map_response"/>';
const MATCH =
  '<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/match_correct"/>';

const simple = (max: number, ...ids: string[]): string =>
  `<itemBody><choiceInteraction responseIdentifier="RESPONSE" shuffle="true" maxChoices="${max}">${ids.map((i) => `<simpleChoice identifier="${i}">Element ${i}</simpleChoice>`).join('')}</choiceInteraction></itemBody>`;

async function table(xml: string, rows: readonly [answers: string[], score: number][]): Promise<void> {
  const item = await item21(xml);
  for (const [given, score] of rows) {
    const answers: Answers = given.length > 0 ? { RESPONSE: given } : {};
    expect(evaluate(item, answers).raw, given.join(' + ') || 'nothing').to.equal(score);
  }
}

describe('QTI 2.1 Implementation Guide: worked examples', () => {
  it('3.1 "Simple items": a single choice by match_correct gives 1 for the key, else 0', () =>
    table(
      `<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"><correctResponse><value>A</value></correctResponse></responseDeclaration>${SCORE}${simple(1, 'A', 'B', 'C')}${MATCH}`,
      [
        [['A'], 1],
        [['B'], 0],
        [[], 0],
      ],
    ));

  it('3.2 "Composite of water": mapping 0 to 2, default -2, entries 1, 1 and -1', () =>
    table(
      `<responseDeclaration identifier="RESPONSE" cardinality="multiple" baseType="identifier"><correctResponse><value>H</value><value>O</value></correctResponse>
       <mapping lowerBound="0" upperBound="2" defaultValue="-2"><mapEntry mapKey="H" mappedValue="1"/><mapEntry mapKey="O" mappedValue="1"/><mapEntry mapKey="Cl" mappedValue="-1"/></mapping></responseDeclaration>${SCORE}${simple(0, 'H', 'He', 'C', 'O', 'N', 'Cl')}${MAP}`,
      [
        [['H', 'O'], 2],
        [['H', 'O', 'Cl'], 1],
        [['H', 'O', 'He'], 0],
        [['H'], 1],
        [['Cl'], 0],
        [[], 0],
      ],
    ));

  it('3.2 "Text entry": the exact spelling maps to 1, a lower-case one to 0.5', () =>
    table(
      `<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="string"><correctResponse><value>York</value></correctResponse>
       <mapping defaultValue="0"><mapEntry mapKey="York" mappedValue="1"/><mapEntry mapKey="york" mappedValue="0.5"/></mapping></responseDeclaration>${SCORE}<itemBody><p>Duke of <textEntryInteraction responseIdentifier="RESPONSE" expectedLength="15"/></p></itemBody>${MAP}`,
      [
        [['York'], 1],
        [['york'], 0.5],
        [['YORK'], 0],
        [[], 0],
      ],
    ));

  it('3.2 "Extended text": nothing is scored by the item itself', async () => {
    const item = await item21(
      `<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="string"/>${SCORE}<itemBody><extendedTextInteraction responseIdentifier="RESPONSE" expectedLength="200"><prompt>Explain.</prompt></extendedTextInteraction></itemBody>`,
    );
    expect(evaluate(item, { RESPONSE: ['a long answer'] }).raw).to.equal(0);
  });
});

describe('what is written, by a parser that is not ours (libxml2)', () => {
  it('is well-formed XML in the declared namespaces (XML 1.0; QTI 2.1 and IMS CP 1.1.4 bindings, from memory)', async () => {
    const holding = await readZip({
      'i.xml': `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="i" title="a &lt; b &amp; c">${SCORE}${simple(1, 'A', 'B')}</assessmentItem>`,
    });
    const { packages } = writeHolding(holding, 'qti2.1', () => null, nodePlatform);
    const entries = unzipSync(packages[0]!);
    const parse = (path: string): XmlDocument => XmlDocument.fromString(strFromU8(entries[path]!));
    const manifest = parse('imsmanifest.xml');
    expect(manifest.root.namespaceUri).to.equal('http://www.imsglobal.org/xsd/imscp_v1p1');
    const [resource] = manifest.find('//cp:resource', { cp: manifest.root.namespaceUri }) as XmlElement[];
    expect(resource!.attr('type')!.value).to.equal('imsqti_item_xmlv2p1');
    const item = parse(resource!.attr('href')!.value);
    expect([item.root.namespaceUri, item.root.attr('title')!.value]).to.deep.equal([
      'http://www.imsglobal.org/xsd/imsqti_v2p1',
      'a < b & c',
    ]);
    manifest.dispose();
    item.dispose();
  });
});
