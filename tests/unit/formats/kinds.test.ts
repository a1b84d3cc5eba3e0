import { expect } from 'chai';
import {
  compareHoldings,
  evaluate,
  inspectReport,
  make,
  probesOf,
  readHolding,
  recognise,
  writeHolding,
  type Holding,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { fileReader, INTERACTION_KINDS, KIND_SUPPORT } from '@alforja/core';
import { KINDS, kindsPackage } from '../../../demo/kinds.ts';
import { zip } from '../../../demo/zip.ts';
import { readAll, unexplained } from '../../support/losses.ts';
import { readZip } from '../../support/read.ts';

describe('every kind of item', () => {
  let holding: Holding;
  const bytes = zip(kindsPackage());
  before(async () => {
    holding = await readHolding('kinds.zip', bytes, nodePlatform);
  });

  it('has a sample of each kind but the unknown one', () => {
    expect(KINDS.map((k) => k.kind).sort()).to.deep.equal(
      INTERACTION_KINDS.filter((k) => k !== 'custom').sort(),
    );
    expect(holding.findings.filter((f) => f.severity !== 'note')).to.deep.equal([]);
  });

  for (const sample of KINDS) {
    it(`reads ${sample.kind}: its points, key and scoring`, () => {
      const item = inspectReport(holding).items.find((i) => i.id === `kind-${sample.kind}`)!;
      expect(item).to.deep.include({
        interactions: [sample.kind],
        points: sample.points,
        key: [...sample.key],
        scoring: sample.scoring,
      });
    });
  }

  for (const target of ['qti2.1', 'qti2.2', 'qti3.0'] as const) {
    it(`writes every kind as ${target} and reads it back intact, with the same score on every probe`, async () => {
      const reader = await fileReader('kinds.zip', bytes, nodePlatform);
      const { packages, findings } = writeHolding(holding, target, reader, nodePlatform);
      expect(findings.map((f) => f.code)).to.deep.equal([]);
      const back = await readHolding('back.zip', packages[0]!, nodePlatform);
      expect(back.findings.filter((f) => f.severity !== 'note')).to.deep.equal([]);
      const report = compareHoldings(holding, back);
      expect(report.pairs.flatMap((p) => p.differences)).to.deep.equal([]);
      expect(report.verdict).to.equal('intact');
      for (const [at, item] of holding.items.entries()) {
        expect(back.items[at]!.body).to.deep.equal(item.body);
        for (const answers of probesOf(item, recognise(item).best.answers).answers)
          expect(evaluate(back.items[at]!, answers).score).to.be.closeTo(evaluate(item, answers).score, 1e-9);
      }
    });
  }

  for (const target of ['qti1.2', 'cc1.1', 'cc1.3'] as const) {
    it(`${target}: names every loss of every kind, and what it keeps scores as before`, async () => {
      const reader = await fileReader('kinds.zip', bytes, nodePlatform);
      const { packages, findings } = writeHolding(holding, target, reader, nodePlatform);
      const back = await readAll(packages);
      expect(unexplained(holding, back, findings)).to.deep.equal([]);
      const lost = new Set(findings.filter((f) => f.severity === 'error').map((f) => f.where.node));
      const table = KIND_SUPPORT[target === 'qti1.2' ? 'qti1.2' : 'cartridge'];
      for (const { kind } of KINDS)
        expect(lost.has(`kind-${kind}`), kind).to.equal(table[kind as keyof typeof table] === null);
    });
  }

  it('keeps what QTI 3 alone has, between QTI 3 files', async () => {
    const xml = `<qti-assessment-item xmlns="http://www.imsglobal.org/xsd/imsqtiasi_v3p0" identifier="i3" title="Three" adaptive="false" time-dependent="false">
      <qti-response-declaration identifier="RESPONSE" cardinality="single" base-type="string"><qti-correct-response><qti-value>Isobar</qti-value></qti-correct-response><qti-mapping default-value="0"><qti-map-entry map-key="Isobar" mapped-value="1"/></qti-mapping></qti-response-declaration>
      <qti-outcome-declaration identifier="SCORE" cardinality="single" base-type="float"/>
      <qti-companion-materials-info><qti-calculator><qti-calculator-type>basic</qti-calculator-type></qti-calculator></qti-companion-materials-info>
      <qti-assessment-stimulus-ref identifier="st" href="passage.xml"/>
      <qti-item-body><p data-catalog-idref="c1">Name it: <qti-text-entry-interaction response-identifier="RESPONSE" class="qti-input-width-10" data-prompt="x"/></p><qti-portable-custom-interaction response-identifier="PCI" custom-interaction-type-identifier="urn:x"><qti-interaction-markup><b>odd</b></qti-interaction-markup></qti-portable-custom-interaction></qti-item-body>
      <qti-catalog-info><qti-catalog id="c1"/></qti-catalog-info>
      <qti-response-processing template="https://purl.imsglobal.org/spec/qti/v3p0/rptemplates/map_response.xml"/>
    </qti-assessment-item>`;
    const files = {
      'item.xml': xml,
      'passage.xml': `<qti-assessment-stimulus xmlns="http://www.imsglobal.org/xsd/imsqtiasi_v3p0" identifier="st" title="Passage"><qti-stimulus-body><p>Read this.</p></qti-stimulus-body></qti-assessment-stimulus>`,
    };
    const three = await readZip(files);
    const [item] = three.items;
    expect(inspectReport(three).format).to.deep.include({ standard: 'qti', version: '3.0' });
    expect(item!.stimuli.map((s) => s.title)).to.deep.equal(['Passage']);
    // In QTI 3 capitals do not count unless an entry says so.
    expect(evaluate(item!, { RESPONSE: ['ISOBAR'] }).raw).to.equal(1);
    expect(inspectReport(three).items[0]!.interactions).to.deep.equal(['textEntry', 'custom']);
    const { packages } = writeHolding(three, 'qti3.0', () => null, nodePlatform);
    const back = await readHolding('b.zip', packages[0]!, nodePlatform);
    expect(back.items[0]!.kept.map((k) => k.name).sort()).to.deep.equal([
      'catalogInfo',
      'companionMaterialsInfo',
    ]);
    expect(JSON.stringify(back.items[0]!.body))
      .to.contain('qti-portable-custom-interaction')
      .and.contain('qti-input-width-10');
    expect(compareHoldings(three, back).verdict).to.equal('intact');
    // Into QTI 2.1 the loss is named, and the scoring stays as it was.
    const two = writeHolding(three, 'qti2.1', () => null, nodePlatform);
    expect(two.findings.map((f) => f.code)).to.include('loss-kind');
    const as2 = await readHolding('b.zip', two.packages[0]!, nodePlatform);
    expect(evaluate(as2.items[0]!, { RESPONSE: ['ISOBAR'] }).raw).to.equal(1);
  });

  it('fills a parameterised item from a seed, the same each time', async () => {
    const xml = `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="t" title="T" adaptive="false" timeDependent="false">
      <responseDeclaration identifier="RESPONSE" cardinality="single" baseType="integer"/>
      <outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>
      <templateDeclaration identifier="KNOTS" cardinality="single" baseType="integer"/><templateDeclaration identifier="ANSWER" cardinality="single" baseType="integer"/>
      <templateProcessing><setTemplateValue identifier="KNOTS"><randomInteger min="4" max="20" step="2"/></setTemplateValue>
        <templateConstraint><gt><variable identifier="KNOTS"/><baseValue baseType="integer">9</baseValue></gt></templateConstraint>
        <setTemplateValue identifier="ANSWER"><product><variable identifier="KNOTS"/><baseValue baseType="integer">3</baseValue></product></setTemplateValue>
        <setCorrectResponse identifier="RESPONSE"><variable identifier="ANSWER"/></setCorrectResponse></templateProcessing>
      <itemBody><p>At <printedVariable identifier="KNOTS"/> knots for 3 hours: <textEntryInteraction responseIdentifier="RESPONSE"/></p></itemBody>
      <responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/match_correct"/></assessmentItem>`;
    const made = await readZip({ 'i.xml': xml });
    const item = made.items[0]!;
    const [key] = inspectReport(made).items[0]!.key;
    expect(Number(key)).to.be.at.least(30);
    expect(Number(key) % 6).to.equal(0);
    expect(evaluate(item, { RESPONSE: [Number(key)] }).raw).to.equal(1);
    const keys = [1, 2, 3, 4, 5, 6].map((seed) =>
      [30, 36, 42, 48, 54, 60].find((n) => evaluate(item, { RESPONSE: [n] }, { seed }).raw === 1),
    );
    expect(keys.every((k) => k !== undefined)).to.equal(true);
    expect(new Set(keys).size).to.be.above(1);
    const { packages } = writeHolding(made, 'qti3.0', () => null, nodePlatform);
    const back = await readHolding('b.zip', packages[0]!, nodePlatform);
    expect(back.items[0]!.templateRules).to.deep.equal(item.templateRules);
    expect(make.item({ id: 'x' }).templates).to.deep.equal([]);
  });
});
