import { Document, HeadingLevel, ImageRun, Packer, Paragraph, Table, TableCell, TableRow } from 'docx';
import { PNG } from 'pngjs';
import { expect } from 'chai';
import { explainDocuments, keyTexts, readHolding, recognise } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';

const table = (rows: readonly (readonly (string | Paragraph)[])[]): Table =>
  new Table({
    rows: rows.map(
      (cells) =>
        new TableRow({
          children: cells.map(
            (c) => new TableCell({ children: [typeof c === 'string' ? new Paragraph(c) : c] }),
          ),
        }),
    ),
  });
const docx = async (children: readonly (Paragraph | Table)[]): Promise<Uint8Array> =>
  new Uint8Array(await Packer.toBuffer(new Document({ sections: [{ children }] })));
const heading = (text: string): Paragraph => new Paragraph({ text, heading: HeadingLevel.HEADING_1 });
const asked = [
  ['Question', 'A', 'B', 'Answer', 'Points'],
  ['Which side is port?', 'left', 'right', 'A', '2'],
  ['Which side is starboard?', 'left', 'right', 'B', '1'],
  ['Which colour is port?', 'green', 'red', 'B', '1'],
];
const picture = new Paragraph({
  children: [
    new ImageRun({
      type: 'png',
      data: PNG.sync.write(new PNG({ width: 8, height: 8 })),
      transformation: { width: 8, height: 8 },
    }),
  ],
});

describe('a table of questions within a document', () => {
  it('is read by its header, in a bank named by the heading above it; the rest is read as ever', async () => {
    const bytes = await docx([
      heading('Sides'),
      table(asked),
      heading('More'),
      new Paragraph('1. How long is a mile?'),
      new Paragraph('a. 1609 m'),
      new Paragraph('b. 1852 m'),
      new Paragraph('Answer: b'),
      new Paragraph('2. How long is a cable?'),
      new Paragraph('a. 185 m'),
      new Paragraph('b. 100 m'),
      new Paragraph('Answer: a'),
    ]);
    const holding = await readHolding('sides.docx', bytes, nodePlatform);
    expect(holding.items.map((i) => [keyTexts(i, recognise(i)).join(), i.points])).to.deep.equal([
      ['1852 m', 1],
      ['185 m', 1],
      ['left', 2],
      ['right', 1],
      ['red', 1],
    ]);
    expect(holding.banks.map((b) => b.title)).to.include('Sides');
    expect(holding.documents!.map((d) => [d.path, d.unread])).to.deep.equal([
      ['sides.docx', []],
      ['sides.docx!/table 1', []],
    ]);
    const seen = await explainDocuments('sides.docx', bytes, nodePlatform);
    expect(seen.map((s) => s.recognised.document.path)).to.deep.equal(['sides.docx', 'sides.docx!/table 1']);
  });

  it('alone below a title it is all there is; a remark beside it is told, and no question is missed', async () => {
    const alone = await readHolding('t.docx', await docx([heading('Sides'), table(asked)]), nodePlatform);
    expect([alone.items.length, alone.findings.filter((f) => f.severity === 'error')]).to.deep.equal([3, []]);
    const remark = new Paragraph('To be printed twice.');
    const beside = await readHolding('t.docx', await docx([remark, table(asked)]), nodePlatform);
    expect(beside.items).to.have.length(3);
    expect(beside.findings.map((f) => f.code))
      .to.include('blocks-unread')
      .and.not.to.include('questions-none');
  });

  it('with a picture in a cell it stays what it was: nothing of it is lost without a word', async () => {
    const rows = [...asked, ['Which mark is this?', 'can', picture, 'A', '1']];
    const holding = await readHolding('t.docx', await docx([heading('Sides'), table(rows)]), nodePlatform);
    expect(holding.documents!.map((d) => d.path)).to.deep.equal(['t.docx']);
    expect(holding.findings.some((f) => ['questions-none', 'blocks-unread'].includes(f.code))).to.equal(true);
  });

  it('any other table is none: words to be matched, a grid of answers, choices side by side', async () => {
    for (const rows of [
      [
        ['Light', 'Side'],
        ['red', 'port'],
        ['green', 'starboard'],
        ['white', 'stern'],
      ],
      [
        ['1', '2', '3'],
        ['b', 'c', 'a'],
      ],
      [
        ['a. red', 'b. green'],
        ['c. white', 'd. yellow'],
        ['e. blue', 'f. black'],
      ],
    ]) {
      const holding = await readHolding('t.docx', await docx([table(rows)]), nodePlatform);
      expect(
        holding.documents!.map((d) => d.path),
        rows[0]!.join(),
      ).to.deep.equal(['t.docx']);
    }
  });
});
