import { expect } from 'chai';
import type { Block, BlockDocument } from '../../../core/src/document/block.ts';
import { textOfRuns } from '../../../core/src/document/runs.ts';
import { readBlocks, type DocumentContainer } from '../../../core/src/formats/document/blocks.ts';
import { nodePlatform } from '@alforja/core/node';
import { bytesOf, zip } from '../../support/read.ts';

const W =
  'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" ' +
  'xmlns:m="http://schemas.openxmlformats.org/officeDocument/2006/math"';
const docx = (body: string, files: Readonly<Record<string, string>> = {}): Uint8Array =>
  zip({
    '[Content_Types].xml': '<Types/>',
    'word/document.xml': `<w:document ${W}><w:body>${body}</w:body></w:document>`,
    ...Object.fromEntries(Object.entries(files).map(([n, x]) => [n, x.replace('$W', W)])),
  });
const read = (container: DocumentContainer, content: string | Uint8Array): Promise<BlockDocument> =>
  readBlocks(container, `given.${container}`, bytesOf(content), nodePlatform);
const said = (block: Block): string =>
  block.kind === 'table'
    ? block.rows
        .map((r) => r.map((c) => c.map((p) => p.label + textOfRuns(p.runs)).join('/')).join('|'))
        .join(';')
    : `${block.label}${block.label ? ' ' : ''}${textOfRuns(block.runs)}`;
const blocks = async (container: DocumentContainer, content: string | Uint8Array): Promise<string[]> =>
  (await read(container, content)).blocks.map(said);

describe('documents as blocks', () => {
  it('counts lists of a word-processor file as it shows them: formats, levels, restarts, lists that go on', async () => {
    const lvl = (at: number, format: string, label: string, start = 1): string =>
      `<w:lvl w:ilvl="${at}"><w:start w:val="${start}"/><w:numFmt w:val="${format}"/><w:lvlText w:val="${label}"/></w:lvl>`;
    const numbering =
      `<w:numbering $W><w:abstractNum w:abstractNumId="0">${lvl(0, 'decimal', '%1.')}` +
      `${lvl(1, 'lowerLetter', '%2)')}${lvl(2, 'lowerRoman', '%1.%2.%3')}</w:abstractNum>` +
      `<w:abstractNum w:abstractNumId="1">${lvl(0, 'bullet', '\uF0B7')}</w:abstractNum>` +
      `<w:num w:numId="1"><w:abstractNumId w:val="0"/></w:num><w:num w:numId="2">` +
      `<w:abstractNumId w:val="0"/><w:lvlOverride w:ilvl="0"><w:startOverride w:val="7"/>` +
      `</w:lvlOverride></w:num><w:num w:numId="3"><w:abstractNumId w:val="1"/>` +
      `</w:num></w:numbering>`;
    const p = (num: number, level: number, text: string): string =>
      `<w:p><w:pPr><w:numPr><w:ilvl w:val="${level}"/><w:numId w:val="${num}"/>` +
      `</w:numPr></w:pPr><w:r><w:t>${text}</w:t></w:r></w:p>`;
    const body =
      p(1, 0, 'one') +
      p(1, 1, 'first') +
      p(1, 1, 'second') +
      p(1, 2, 'deep') +
      p(1, 0, 'two') +
      p(1, 1, 'first again') +
      p(2, 0, 'seven') +
      p(3, 0, 'dot') +
      p(1, 0, 'three');
    expect(await blocks('docx', docx(body, { 'word/numbering.xml': numbering }))).to.deep.equal([
      '1. one',
      'a) first',
      'b) second',
      '1.b.i deep',
      '2. two',
      'a) first again',
      '7. seven',
      '• dot',
      '3. three',
    ]);
  });

  it('reads looks from styles and runs, leaves deleted text and field codes out, and takes the newer of two forms', async () => {
    const styles =
      '<w:styles $W><w:style w:type="character" w:styleId="K"><w:rPr><w:b/></w:rPr></w:style><w:style ' +
      'w:type="paragraph" w:styleId="H"><w:name w:val="heading 2"/></w:style></w:styles>';
    const body =
      `<w:p><w:pPr><w:pStyle w:val="H"/></w:pPr><w:r><w:t>Tides</w:t></w:r></w:p>` +
      `<w:p><w:r><w:rPr><w:rStyle w:val="K"/></w:rPr><w:t>bold</w:t></w:r><w:del>` +
      `<w:r><w:delText>gone</w:delText></w:r></w:del><w:ins><w:r><w:t> new</w:t>` +
      `</w:r></w:ins><w:r><w:instrText>PAGE</w:instrText></w:r><w:r><w:rPr><w:b w:val="0"/>` +
      `<w:highlight w:val="yellow"/></w:rPr><w:t xml:space="preserve"> lit</w:t>` +
      `</w:r></w:p>`;
    const { blocks: read2 } = await read('docx', docx(body, { 'word/styles.xml': styles }));
    expect(read2.map(said)).to.deep.equal(['Tides', 'bold new lit']);
    expect(read2[0]).to.include({ heading: 2 });
    const runs = read2[1]!.kind === 'paragraph' ? read2[1]!.runs : [];
    expect(runs.map((r) => r.kind === 'text' && [r.look.bold, r.look.highlight])).to.deep.equal([
      [true, null],
      [false, null],
      [false, 'yellow'],
    ]);
  });

  it('turns office mathematics into MathML', async () => {
    const math =
      '<m:oMath><m:r><m:t>D=</m:t></m:r><m:f><m:num><m:r><m:t>S</m:t></m:r></m:num><m:den><m:sSup>' +
      '<m:e><m:r><m:t>t</m:t></m:r></m:e><m:sup><m:r><m:t>2</m:t></m:r></m:sup></m:sSup></m:den></m:f>' +
      '<m:rad><m:deg/><m:e><m:r><m:t>x</m:t></m:r></m:e></m:rad></m:oMath>';
    const {
      blocks: [block],
    } = await read('docx', docx(`<w:p>${math}</w:p>`));
    const run = block!.kind === 'paragraph' ? block!.runs[0] : undefined;
    const names = JSON.stringify(run)
      .match(/"name":"m\w+"/gu)!
      .map((n) => n.slice(8, -1));
    expect(names).to.deep.equal(['mrow', 'mi', 'mo', 'mfrac', 'mi', 'msup', 'mi', 'mn', 'msqrt', 'mi']);
  });

  it('reads RTF: code pages of fonts, Unicode with what stands in for it, list texts, tables, no headers or fields', async () => {
    const rtf = String.raw`{\rtf1\ansi\ansicpg1252{\fonttbl{\f0\fcharset0 A;}{\f1\fcharset204 B;}}{\info{\title T}}{\header H}\pard{\listtext\pard\plain 1.\tab}Caf\'e9 {\f1\'c4\'e0}\par\pard\uc1 \u1044?\u1072? {\field{\*\fldinst PAGE}{\fldrslt 7}}\par\trowd\cellx900\cellx1800\pard\intbl a\cell\pard\intbl b\cell\row\pard {\b bold}\line next\par}`;
    expect(await blocks('rtf', rtf)).to.deep.equal(['1. Café Да', 'Да 7', 'a|b', 'bold\nnext']);
    expect((await read('rtf', rtf)).title).to.equal('T');
  });

  it('reads lists of pages by their type and start, tables, and what is emphasised by a style', async () => {
    const html =
      '<!DOCTYPE html><html><head><title>Bank</title></head><body><h1>Tides</h1><ol start="3">' +
      '<li>Which?<ol type="A"><li>one</li><li><span style="font-weight:700">two</span></li></ol></li>' +
      '<li>And?</li></ol><table><tr><th>a</th><td>b</td></tr></table><p>x<sub>1</sub><br>y</p></body>' +
      '</html>';
    expect(await blocks('html', html)).to.deep.equal([
      'Tides',
      '3. Which?',
      'A. one',
      'B. two',
      '4. And?',
      'a|b',
      'x1\ny',
    ]);
  });

  it('reads lists of OpenDocument that go on in each other, and skips what was deleted', async () => {
    const content =
      '<office:document-content xmlns:office="o" xmlns:text="t" xmlns:style="s" xmlns:table="b">' +
      '<office:automatic-styles><text:list-style style:name="L"><text:list-level-style-number ' +
      'text:level="1" style:num-format="1" style:num-suffix=")"/><text:list-level-style-number ' +
      'text:level="2" style:num-format="a" style:num-suffix="."/></text:list-style>' +
      '</office:automatic-styles><office:body><office:text><text:tracked-changes><text:p>gone</text:p>' +
      '</text:tracked-changes><text:list xml:id="x" text:style-name="L"><text:list-item>' +
      '<text:p>one</text:p><text:list><text:list-item><text:p>inner</text:p></text:list-item>' +
      '</text:list></text:list-item></text:list><text:p>between<text:s text:c="2"/>words</text:p>' +
      '<text:list text:continue-numbering="true" text:style-name="L"><text:list-item>' +
      '<text:p>two</text:p></text:list-item></text:list></office:text></office:body>' +
      '</office:document-content>';
    const odt = zip({
      mimetype: 'application/vnd.oasis.opendocument.text',
      'META-INF/manifest.xml': '<manifest/>',
      'content.xml': content,
    });
    expect(await blocks('odt', odt)).to.deep.equal(['1) one', 'a. inner', 'between  words', '2) two']);
  });
});

describe('pages of a PDF as lines', () => {
  const text = (t: string, x: number, y: number, over: object = {}) => ({
    text: t,
    x,
    y,
    width: t.length * 5,
    height: 10,
    bold: false,
    italic: false,
    underline: false,
    highlight: null,
    color: null,
    rtl: false,
    ...over,
  });
  const page = (texts: readonly ReturnType<typeof text>[]) => ({ width: 600, height: 800, texts });

  it('reads columns one after the other, leaves out heads and feet, and heals words cut at a line’s end', async () => {
    const { readPdfPages } = await import('../../../core/src/document/pdf.ts');
    const column = (x: number, from: number) =>
      Array.from({ length: 8 }, (_, n) => text(`line ${from + n} of the column here`, x, 700 - n * 14));
    const pages = [1, 2].map((n) =>
      page([
        text(`Test bank, page ${n}`, 50, 780),
        ...column(50, n * 100),
        ...column(330, n * 100 + 50),
        text(String(n), 300, 20),
      ]),
    );
    const { blocks: read2 } = readPdfPages('x.pdf', pages, '');
    const lines = read2.map(said);
    expect(lines.filter((l) => l.includes('Test bank') || /^\d$/u.test(l))).to.deep.equal([]);
    expect(lines.map((l) => Number(l.split(' ')[1]))).to.deep.equal(
      [...Array(8).keys()]
        .map((n) => 100 + n)
        .concat(
          [...Array(8).keys()].map((n) => 150 + n),
          [...Array(8).keys()].map((n) => 200 + n),
          [...Array(8).keys()].map((n) => 250 + n),
        ),
    );
    const cut = readPdfPages(
      'x.pdf',
      [page([text('a vessel under naviga-', 50, 700), text('tion at night', 50, 688)])],
      '',
    );
    expect(said(cut.blocks[0]!)).to.equal('a vessel under naviga\u00AD');
  });
});
