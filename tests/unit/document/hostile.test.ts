import { expect } from 'chai';
import { readHolding, Refusal, type Holding } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { asPdf } from '../../../demo/book/documents.ts';
import { bytesOf, codes, zip } from '../../support/read.ts';

const W =
  'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" ' +
  'xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships" ' +
  'xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main"';
const TYPES =
  '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>';
const p = (text: string, more = ''): string => `<w:p><w:r><w:t>${text}</w:t>${more}</w:r></w:p>`;
const ASKED = [
  '1. Which light is at port?',
  'a. green',
  'b. red',
  'Answer: b',
  '2. How long is a mile?',
  'a. 1609 m',
  'b. 1852 m',
  'Answer: b',
];
const docx = (
  body: string,
  files: Readonly<Record<string, string | Uint8Array>> = {},
  head = '',
): Uint8Array =>
  zip({
    '[Content_Types].xml': TYPES,
    'word/document.xml': `<?xml version="1.0"?>${head}<w:document ${W}><w:body>${body}</w:body></w:document>`,
    ...files,
  });
const asked = ASKED.map((t) => p(t)).join('');
const read = (bytes: Uint8Array, name: string): Promise<Holding> => readHolding(name, bytes, nodePlatform);
const refused = (bytes: Uint8Array, name: string): Promise<string> =>
  read(bytes, name).then(
    (h) => `read: ${codes(h).join()}`,
    (error: unknown) => (error instanceof Refusal ? error.finding.code : String(error)),
  );
const PNG = Uint8Array.from(
  atob('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='),
  (c) => c.charCodeAt(0),
);

describe('hostile and broken documents', () => {
  it('never expands an entity of a word-processor file, and names it', async () => {
    const head = '<!DOCTYPE w [<!ENTITY x SYSTEM "file:///etc/passwd"><!ENTITY lol "lollol">]>';
    const holding = await read(docx(`${asked}${p('&x;&lol;')}`, {}, head), 'xxe.docx');
    expect(codes(holding)).to.include('xml-entity-refused');
    expect(JSON.stringify(holding)).not.to.contain('root:').and.not.to.contain('lollollol');
    expect(holding.items).to.have.length(2);
  });

  it('says that macros and objects are not kept, and reads the questions', async () => {
    const holding = await read(
      docx(asked, { 'word/vbaProject.bin': 'x', 'word/embeddings/oleObject1.bin': 'x' }),
      'macro.docm',
    );
    expect(codes(holding).filter((c) => c === 'active-content-removed')).to.have.length(2);
    expect(holding.items).to.have.length(2);
    expect(holding.files).to.deep.equal([]);
  });

  it('names a picture elsewhere, and does not fetch it', async () => {
    const rels =
      '<?xml version="1.0"?><Relationships><Relationship Id="r1" Type="t/image" ' +
      'Target="http://127.0.0.1:9/x.png" TargetMode="External"/><Relationship Id="r2" Type="t/image" ' +
      'Target="media/a.png"/><Relationship Id="r3" Type="t/image" Target="../../../../etc/passwd"/>' +
      '</Relationships>';
    const drawing = (id: string): string => `<w:drawing><a:blip r:embed="${id}"/></w:drawing>`;
    const body =
      `${p('1. Which light is this?', drawing('r1') + drawing('r2') + drawing('r3'))}` +
      `${asked.replace('1. Which', '2. Which').replace('2. How', '3. How')}`;
    const holding = await read(
      docx(body, { 'word/_rels/document.xml.rels': rels, 'word/media/a.png': PNG }),
      'remote.docx',
    );
    expect(codes(holding)).to.include('remote-media').and.to.include('picture-unread');
    expect(holding.files.map((f) => f.path)).to.have.length(1);
  });

  it('refuses a bomb, a cut archive, an encrypted one, and XML that is none, by name', async () => {
    const bomb = docx(asked, { 'word/media/big.bin': new Uint8Array(40 * 1024 * 1024) });
    expect(await refused(bomb, 'bomb.docx')).to.equal('archive-too-large');
    expect(await refused(docx(asked).subarray(0, 300), 'cut.docx')).to.match(
      /^archive-truncated|read: format-unknown/u,
    );
    expect(await refused(docx('<w:p>'), 'bad.docx')).to.equal('xml-malformed');
    expect(await refused(docx('<w:p>'.repeat(5000) + '</w:p>'.repeat(5000)), 'deep.docx')).to.equal(
      'xml-too-deep',
    );
    const encryption = '<manifest><file-entry><encryption-data/></file-entry></manifest>';
    expect(
      await refused(
        zip({
          mimetype: 'application/vnd.oasis.opendocument.text',
          'META-INF/manifest.xml': encryption,
          'content.xml': 'x',
        }),
        'locked.odt',
      ),
    ).to.equal('document-protected');
  });

  it('says of a PDF that needs a password that it does, and reads one whose password only locks changes', async () => {
    const lines = ASKED.map((text) => ({ text }));
    for (const [over, wanted] of [
      [{ userPassword: 'rhumb' }, 'document-protected'],
      [{ ownerPassword: 'rhumb', permissions: { modifying: false } }, null],
    ] as const) {
      const bytes = await asPdf('Locked', lines, over);
      const read = await readHolding('locked.pdf', bytes, nodePlatform).catch((error: unknown) => error);
      if (wanted === null) expect((read as Holding).items).to.have.length(2);
      else expect((read as Refusal).finding.code).to.equal(wanted);
    }
  });

  it('reads RTF nested a hundred thousand deep, with binary blobs and objects, in a straight line', async () => {
    const deep =
      `{\\rtf1${'{'.repeat(100_000)}${'}'.repeat(100_000)}{\\object{\\*\\objdata 0102}{\\result X}}{\\*\\unknown{\\pict\\bin9 {}}}\\{}}}}}` +
      `${ASKED.map((t) => `\\pard ${t}\\par`).join('\n')}}`;
    const started = performance.now();
    const holding = await read(bytesOf(deep), 'deep.rtf');
    expect(holding.items).to.have.length(2);
    expect(codes(holding)).to.include('active-content-removed');
    expect(performance.now() - started).to.be.below(3000);
    expect((await read(bytesOf('{\\rtf1 1. What?\\par a. x\\par'), 'cut.rtf')).items.length).to.be.at.most(1);
  });

  it('refuses PDFs that are protected, cut off or garbage, and runs no script of one', async () => {
    expect(await refused(bytesOf('%PDF-1.7\nnonsense'), 'garbage.pdf')).to.equal('document-damaged');
    const holding = await read(
      pdf('(1. Which light is at port?) Tj T* (a. green) Tj T* (b. red) Tj T* (Answer: b) Tj'),
      'script.pdf',
    );
    expect(codes(holding)).to.include('active-content-removed');
    expect(holding.items).to.have.length(1);
    const scanned = await read(pdf(''), 'scan.pdf');
    expect(codes(scanned)).to.include('document-scanned');
  });

  it('takes scripts and frames out of a page, and fetches nothing', async () => {
    const page =
      `<!DOCTYPE html><html><body onload="x()"><script>1. evil?</script><iframe src="http://x">` +
      `</iframe>${ASKED.map((t) => `<p>${t}</p>`).join('')}<img src="http://127.0.0.1:9/a.png">` +
      `</body></html>`;
    const holding = await read(bytesOf(page), 'page.html');
    expect(codes(holding)).to.include('active-content-removed').and.to.include('remote-media');
    expect(JSON.stringify(holding.items)).not.to.contain('evil').and.not.to.contain('onload');
  });

  it('reads long runs of blanks, dashes and brackets in a straight line', async () => {
    for (const odd of [' ', '-', '.', '(', '[', '_', '<', 'a ', '1.', ';']) {
      const run = odd.repeat(100_000);
      const hostile = [`1. Which? ${run}x`, `a. green ${run}x`, `b. red ${run})`, `Answer: b ${run}x`];
      const started = performance.now();
      await read(bytesOf([...hostile, ...ASKED].join('\n')), 'run.txt');
      expect(performance.now() - started, JSON.stringify(odd)).to.be.below(4000);
    }
  });

  it('reads a table of one column and many rows, and cells that are formulas, as text', async () => {
    const column = `Question\n${'What is it?\n'.repeat(20_000)}`;
    const holding = await read(bytesOf(column), 'column.csv');
    expect(holding.items.length).to.be.at.most(1);
    expect(await refused(bytesOf('What is it?\n'.repeat(1_000_000)), 'million.csv')).to.equal(
      'archive-too-large',
    );
    const formulas = 'Question,A,B,Answer\nWhat is it?,=1+1,"=HYPERLINK(""http://x"")",A\nAnd this?,x,y,B\n';
    const read2 = await read(bytesOf(formulas), 'formulas.csv');
    expect(JSON.stringify(read2.items[0]!.body)).to.contain('=1+1');
  });
});

/** A PDF of one page by hand, with a script that would open a window. */
function pdf(text: string): Uint8Array {
  const stream = `BT /F1 12 Tf 14 TL 72 720 Td ${text} ET`;
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R /OpenAction << /S /JavaScript /JS (app.alert(1)) >> /Names << ' +
      '/JavaScript << /Names [(a) << /S /JavaScript /JS (app.alert(1)) >>] >> >> >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 612 792] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>',
    `<< /Length ${stream.length} >>\nstream\n${stream}\nendstream`,
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
  ];
  let out = '%PDF-1.4\n';
  const offsets = objects.map((o, at) => {
    const from = out.length;
    out += `${at + 1} 0 obj\n${o}\nendobj\n`;
    return from;
  });
  const start = out.length;
  out +=
    `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${offsets.map((o) => `${String(o).padStart(10, '0')} 00000 n \n`).join('')}trailer << /Size ` +
    `${objects.length + 1} /Root 1 0 R >>\nstartxref\n${start}\n%%EOF\n`;
  return bytesOf(out);
}
