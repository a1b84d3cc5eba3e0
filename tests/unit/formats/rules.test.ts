import { expect } from 'chai';
import { inspectReport, RulesFile } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { readHolding } from '@alforja/core';
import { document as qti } from '../../../demo/qti12.ts';
import { bytesOf, read } from '../../support/read.ts';

const field = (label: string, value: string): string =>
  `<qtimetadatafield><fieldlabel>${label}</fieldlabel><fieldentry>${value}</fieldentry></qtimetadatafield>`;
const item = (id: string, fields: Readonly<Record<string, string>>): string =>
  `<item ident="${id}"><itemmetadata><qtimetadata>${Object.entries(fields)
    .map(([l, v]) => field(l, v))
    .join('')}</qtimetadata></itemmetadata>
   <presentation><response_lid ident="R"><render_choice><response_label ident="A"/><response_label ident="B"/></render_choice></response_lid></presentation>
   <resprocessing><outcomes><decvar/></outcomes><respcondition><conditionvar><varequal respident="R">A</varequal></conditionvar><setvar>100</setvar></respcondition></resprocessing></item>`;
const xml = qti(
  ['1', '2', '2', '3']
    .map((worth, at) =>
      item(`i${at}`, {
        x_worth: worth,
        x_area: at < 2 ? 'Tides' : 'Lights',
        x_no: String(1000 + at),
        x_form: 'multiple choice',
      }),
    )
    .join(''),
);

describe('what private fields say', () => {
  it('is proposed by their values: points, category, type; running numbers are none of them', async () => {
    const proposed = (await read(xml)).findings.filter((f) => f.code === 'reading-proposed');
    expect(proposed.map((f) => `${f.params['label']} ${f.params['means']}`)).to.deep.equal([
      'x_worth points',
      'x_area category',
      'x_form type',
    ]);
  });

  it('counts once it is confirmed, before every other source, and for that origin only', async () => {
    const origin = String(
      (await read(xml)).findings.find((f) => f.code === 'reading-proposed')!.params['origin'],
    );
    const { rules } = RulesFile.parse({
      rules: [
        { name: 'Worth', origin, label: 'x_worth', means: 'points' },
        { name: 'Area', origin, label: 'x_area', means: 'category' },
      ],
    });
    const holding = await readHolding('x.xml', bytesOf(xml), nodePlatform, { rules });
    const report = inspectReport(holding);
    expect(report.items.map((i) => i.points)).to.deep.equal([1, 2, 2, 3]);
    expect(report.items.map((i) => i.category)).to.deep.equal(['Tides', 'Tides', 'Lights', 'Lights']);
    expect(holding.findings.map((f) => f.code)).to.not.include('points-disagree');
    const elsewhere = await readHolding('y.xml', bytesOf(xml.replaceAll('x_no', 'y_no')), nodePlatform, {
      rules,
    });
    expect(inspectReport(elsewhere).items[0]!.points).to.equal(100);
  });
});
