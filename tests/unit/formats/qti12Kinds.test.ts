import { expect } from 'chai';
import {
  evaluate,
  inspectReport,
  writeHolding,
  readHolding,
  compareHoldings,
  type Answers,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { document as qti } from '../../../demo/qti12.ts';
import { codes, read, readZip } from '../../support/read.ts';

const text = (t: string): string => `<material><mattext>${t}</mattext></material>`;
const label = (id: string, t = id, attrs = ''): string =>
  `<response_label ident="${id}" ${attrs}>${text(t)}</response_label>`;
const give = (test: string, score: number, action = 'Add'): string =>
  `<respcondition continue="Yes"><conditionvar>${test}</conditionvar><setvar action="${action}">${score}</setvar></respcondition>`;
const eq = (r: string, v: string, attrs = ''): string =>
  `<varequal respident="${r}" ${attrs}>${v}</varequal>`;
const item = (presentation: string, conditions: string): string =>
  qti(
    `<item ident="i" title="I"><presentation>${text('Stem')}${presentation}</presentation><resprocessing><outcomes><decvar/></outcomes>${conditions}</resprocessing></item>`,
  );
const row = (id: string, t: string): string =>
  `<response_lid ident="${id}">${text(t)}<render_choice>${label('x', 'Fishing')}${label('y', 'Pilot')}</render_choice></response_lid>`;

interface Case {
  readonly what: string;
  readonly xml: string;
  readonly kind: string;
  readonly key: readonly string[];
  readonly scoring: string;
  readonly answers: readonly [Answers, number][];
}

const CASES: readonly Case[] = [
  {
    what: 'an order',
    kind: 'order',
    key: ['b', 'a', 'c'],
    scoring: 'all-or-nothing',
    xml: item(
      `<response_lid ident="R" rcardinality="Ordered"><render_choice>${label('a')}${label('b')}${label('c')}</render_choice></response_lid>`,
      give(
        `<and>${eq('R', 'b', 'index="1"')}${eq('R', 'a', 'index="2"')}${eq('R', 'c', 'index="3"')}</and>`,
        2,
      ),
    ),
    answers: [
      [{ R: ['b', 'a', 'c'] }, 2],
      [{ R: ['a', 'b', 'c'] }, 0],
    ],
  },
  {
    what: 'a match of rows',
    kind: 'match',
    key: ['Red over white -> Fishing', 'White over red -> Pilot'],
    scoring: 'per-choice',
    xml: item(
      row('r1', 'Red over white') + row('r2', 'White over red'),
      give(eq('r1', 'x'), 1) + give(eq('r2', 'y'), 1),
    ),
    answers: [
      [{ r1: ['x'], r2: ['y'] }, 2],
      [{ r1: ['y'], r2: ['y'] }, 1],
      [{}, 0],
    ],
  },
  {
    what: 'a match by groups',
    kind: 'match',
    key: ['Red -> Fishing'],
    // One of two pairs can be given, so it is all or nothing.
    scoring: 'all-or-nothing',
    xml: item(
      `<response_grp ident="R" rcardinality="Multiple"><render_choice>${label('a', 'Red', 'match_group="x,y" match_max="1"')}${label('x', 'Fishing')}${label('y', 'Pilot')}</render_choice></response_grp>`,
      give(eq('R', 'a,x'), 3),
    ),
    answers: [
      [{ R: ['a x'] }, 3],
      [{ R: ['a y'] }, 0],
    ],
  },
  {
    what: 'several blanks told apart by index',
    kind: 'textEntry textEntry',
    key: ['two', 'three'],
    scoring: 'sum-of-parts',
    xml: item(
      `<response_str ident="R" rcardinality="Ordered"><render_fib>${label('b1', 'Second hour: ')}${label('b2', 'third: ')}</render_fib></response_str>`,
      give(eq('R', 'two', 'index="1"'), 1) + give(eq('R', 'three', 'index="2"'), 1),
    ),
    answers: [
      [{ b1: ['two'], b2: ['three'] }, 2],
      [{ b1: ['three'], b2: ['two'] }, 0],
    ],
  },
  {
    what: 'areas to pick',
    kind: 'hotspot',
    key: ['Entrance'],
    scoring: 'all-or-nothing',
    xml: item(
      `<response_xy ident="R"><render_hotspot><material><matimage uri="c.png" width="320" height="200"/></material><response_label ident="E" rarea="Ellipse">160,60,40,40<material><mattext>Entrance</mattext></material></response_label><response_label ident="Q" rarea="Rectangle">20,20,60,40</response_label></render_hotspot></response_xy>`,
      give(eq('R', 'E'), 1),
    ),
    answers: [
      [{ R: ['E'] }, 1],
      [{ R: ['Q'] }, 0],
    ],
  },
  {
    what: 'a place to point at',
    kind: 'selectPoint',
    key: ['50 40'],
    scoring: 'all-or-nothing',
    xml: item(
      `<response_xy ident="R"><render_hotspot><material><matimage uri="c.png" width="320" height="200"/></material></render_hotspot></response_xy>`,
      give('<varinside respident="R" areatype="Rectangle">20,20,60,40</varinside>', 1),
    ),
    answers: [
      [{ R: ['50 40'] }, 1],
      [{ R: ['80 60'] }, 1],
      [{ R: ['81 60'] }, 0],
    ],
  },
  {
    what: 'a slider',
    kind: 'slider',
    key: ['200..210'],
    scoring: 'numeric',
    xml: item(
      `<response_num ident="R"><render_slider lowerbound="0" upperbound="360" step="1"/></response_num>`,
      give('<vargte respident="R">200</vargte><varlte respident="R">210</varlte>', 2),
    ),
    answers: [
      [{ R: [208] }, 2],
      [{ R: [211] }, 0],
    ],
  },
];

describe('QTI 1.2: every response and renderer', () => {
  for (const { what, xml, kind, key, scoring, answers } of CASES) {
    it(`reads ${what}, runs it, and writes it again with the same scores`, async () => {
      const holding = await readZip({ 'i.xml': xml, 'c.png': 'x' });
      const report = inspectReport(holding).items[0]!;
      expect(report.interactions.join(' ')).to.equal(kind);
      expect(report.scoring).to.equal(scoring);
      expect(report.key).to.deep.equal(key);
      for (const [given, score] of answers)
        expect(evaluate(holding.items[0]!, given).raw, JSON.stringify(given)).to.equal(score);
      for (const target of ['qti1.2', 'qti2.1', 'qti3.0'] as const) {
        const { packages } = writeHolding(holding, target, () => new Uint8Array([1]), nodePlatform);
        const back = await readHolding('b.zip', packages[0]!, nodePlatform);
        const differences = compareHoldings(holding, back).pairs.flatMap((p) => p.differences);
        expect(
          differences.filter((d) => d.facet !== 'files'),
          target,
        ).to.deep.equal([]);
      }
    });
  }

  it('draws by metadata, with and, or and not', async () => {
    const field = (v: string): string =>
      `<itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>qmd_topic</fieldlabel><fieldentry>${v}</fieldentry></qtimetadatafield></qtimetadata></itemmetadata>`;
    const bank = ['Tides', 'Lights', 'Buoys', 'Tides']
      .map((v, at) => `<item ident="b${at}">${field(v)}</item>`)
      .join('');
    const draw = async (filter: string): Promise<string[]> => {
      const holding = await read(
        qti(
          `<assessment ident="q" title="Q"><section ident="s"><selection_ordering><selection><sourcebank_ref>bank</sourcebank_ref><selection_number>1</selection_number>${filter}</selection></selection_ordering></section></assessment><objectbank ident="bank">${bank}</objectbank>`,
        ),
      );
      return [...holding.quizzes[0]!.sections[0]!.draw!.pool];
    };
    const is = (v: string): string => `<selection_metadata mdname="qmd_topic">${v}</selection_metadata>`;
    expect(await draw(is('tides'))).to.deep.equal(['b0', 'b3']);
    expect(await draw(`<or_selection>${is('Tides')}${is('Buoys')}</or_selection>`)).to.deep.equal([
      'b0',
      'b2',
      'b3',
    ]);
    expect(await draw(`<not_selection>${is('Tides')}</not_selection>`)).to.deep.equal(['b1', 'b2']);
    expect(await draw(`<and_selection>${is('Tides')}${is('Lights')}</and_selection>`)).to.deep.equal([]);
  });

  it('makes files of embedded pictures, and follows references to material', async () => {
    const png = Buffer.from([0x89, 0x50, 0x4e, 0x47, 1, 2, 3]).toString('base64');
    const holding = await read(
      qti(
        `<item ident="i"><presentation><material label="m1"><mattext>Shared words</mattext></material><material><matref linkrefid="m1"/><matimage embedded="base64" imagtype="image/png">${png}</matimage></material></presentation></item>`,
      ),
    );
    expect(holding.files.map((f) => [f.path.startsWith('embedded/'), f.bytes])).to.deep.equal([[true, 7]]);
    expect(holding.items[0]!.files).to.deep.equal([{ path: holding.files[0]!.path, present: true }]);
    expect(JSON.stringify(holding.items[0]!.body).match(/Shared words/gu)).to.have.length(2);
    const { packages } = writeHolding(holding, 'cc1.2', () => null, nodePlatform);
    const back = await readHolding('b.zip', packages[0]!, nodePlatform);
    expect(compareHoldings(holding, back).missingFiles).to.deep.equal([]);
    expect(codes(back)).to.not.include('file-missing');
  });
});
