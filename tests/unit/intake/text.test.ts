import { expect } from 'chai';
import fc from 'fast-check';
import { codes, read, readZip } from '../../support/read.ts';
import { decode } from '../../../core/src/intake/decode.ts';
import { parseXml } from '../../../core/src/xml/parse.ts';

const item = (text: string): string =>
  `<questestinterop><item ident="i1"><presentation><material><mattext>${text}</mattext></material></presentation></item></questestinterop>`;
const stemOf = async (bytes: Uint8Array): Promise<{ text: string; codes: string[] }> => {
  const holding = await read(bytes);
  return { text: JSON.stringify(holding.items[0]?.body ?? null), codes: codes(holding) };
};
const utf16 = (text: string, bom: boolean, big: boolean): Uint8Array => {
  const bytes = Buffer.from((bom ? '\uFEFF' : '') + text, 'utf16le');
  return big ? bytes.swap16() : bytes;
};

describe('intake: encodings and XML', () => {
  const latin = Buffer.from(
    item('caf\u00e9 \u2013 \u20ac').replace('\u2013', '\x96').replace('\u20ac', '\x80'),
    'latin1',
  );
  const cases: [what: string, bytes: Uint8Array, text: string, code: string | null][] = [
    ['UTF-8', Buffer.from(item('marée 海図 بحر')), 'marée 海図 بحر', null],
    ['a UTF-8 byte order mark', Buffer.from(`\uFEFF${item('marée')}`), 'marée', null],
    ['UTF-16 little-endian', utf16(item('marée'), true, false), 'marée', null],
    ['UTF-16 big-endian', utf16(item('海図'), true, true), '海図', null],
    ['UTF-16 without a mark', utf16(item('marée'), false, false), 'marée', 'encoding-repaired'],
    ['Windows-1252 declared as nothing', latin, 'café – €', 'encoding-repaired'],
    [
      'Windows-1252 declared as UTF-8',
      Buffer.concat([Buffer.from('<?xml version="1.0" encoding="UTF-8"?>'), latin]),
      'café – €',
      'encoding-repaired',
    ],
    [
      'ISO-8859-1 declared rightly',
      Buffer.concat([
        Buffer.from('<?xml version="1.0" encoding="ISO-8859-1"?>'),
        Buffer.from(item('é'), 'latin1'),
      ]),
      'é',
      null,
    ],
    [
      'UTF-8 declared as ISO-8859-1',
      Buffer.from(`<?xml version="1.0" encoding="ISO-8859-1"?>${item('marée')}`),
      'marée',
      'encoding-repaired',
    ],
    [
      'HTML entities without a DTD',
      Buffer.from(item('2&nbsp;m &eacute; &deg; &amp; &#x4E2D;')),
      '2\u00a0m é ° & 中',
      null,
    ],
    [
      'a DOCTYPE that names a DTD',
      Buffer.from(`<!DOCTYPE questestinterop SYSTEM "http://127.0.0.1:9/x.dtd">${item('Q')}`),
      'Q',
      'doctype-ignored',
    ],
  ];
  for (const [what, bytes, text, code] of cases) {
    it(`reads ${what}`, async () => {
      const got = await stemOf(bytes);
      expect(got.text).to.contain(text);
      const repaired = got.codes.filter((c) => c === 'encoding-repaired' || c === 'doctype-ignored');
      expect(repaired).to.deep.equal(code ? [code] : []);
    });
  }

  it('never expands entities that a document declares', async () => {
    const lol = `<!DOCTYPE q [<!ENTITY a "0123456789"><!ENTITY b "&a;&a;&a;&a;"><!ENTITY x SYSTEM "file:///etc/passwd">]>${item('&b; &x;')}`;
    const got = await stemOf(Buffer.from(lol));
    expect(got.codes).to.include('xml-entity-refused');
    expect(got.text).to.contain('&b; &x;').and.not.contain('0123').and.not.contain('root:');
  });

  it('names file, line and column of broken XML, and reads the rest', async () => {
    const holding = await readZip({
      'a.xml': item('fine'),
      'b.xml': '<questestinterop>\n  <item>\n  </itm>\n',
    });
    const found = holding.findings.find((f) => f.code === 'xml-malformed')!;
    expect(found.where).to.include({ path: 'b.xml', line: 3 });
    expect(holding.items).to.have.length(1);
  });

  it('stops at XML that is nested too deep', async () => {
    const deep = `<questestinterop>${'<material>'.repeat(300)}${'</material>'.repeat(300)}</questestinterop>`;
    expect(codes(await read(deep))).to.include('xml-too-deep');
  });

  it('decodes any text it can encode, and never throws on bytes', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        const xml = `<r>${text.replace(/[<&]/gu, '')}</r>`;
        expect(decode(Buffer.from(xml)).text).to.equal(xml.toWellFormed());
      }),
    );
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), (bytes) => {
        parseXml(decode(bytes).text);
      }),
    );
  });

  it('knows what a file is by its content', async () => {
    const cases: [string | Uint8Array, string, string][] = [
      [item('Q'), 'quiz.pdf', 'qti 1.2 xml'],
      [
        '<x:assessmentItem xmlns:x="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="a"/>',
        'a.zip',
        'qti 2.1 xml',
      ],
      ['{"CFRubrics":[]}', 'r.xml', 'case 1.0 json'],
      ['criterion;level 1;points 1\n', 'r.bin', 'table null csv'],
      ['hello', 'h.xml', 'unknown null text'],
      ['<html/>', 'h.xml', 'unknown null xml'],
    ];
    for (const [content, name, expected] of cases) {
      const { standard, version, container } = (await read(content, name)).format;
      expect(`${standard} ${version} ${container}`, name).to.equal(expected);
    }
  });
});
