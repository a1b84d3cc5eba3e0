import { expect } from 'chai';
import { inspectReport, type Finding } from '@alforja/core';
import { read, readZip } from '../../support/read.ts';
import { items12, material } from './support.ts';

const stem = (html: string): string => `<presentation>${material(html)}</presentation>`;
const found = (findings: readonly Finding[], code: string): Finding | undefined =>
  findings.find((f) => f.code === code);
const manifest = (inside: string): string =>
  `<manifest xmlns="http://www.imsglobal.org/xsd/imscp_v1p1" identifier="m"><metadata><schema>QTI Package</schema><schemaversion>1.2</schemaversion></metadata><organizations/><resources>${inside}</resources></manifest>`;

describe('what is put right while reading is said', () => {
  it('names of characters that HTML knows', async () => {
    const held = await read(
      items12(
        '<presentation><material><mattext>Caf&eacute;&nbsp;&mdash; a &amp; b</mattext></material></presentation>',
      ),
    );
    expect(inspectReport(held).items[0]!.stem).to.equal('Café — a & b');
    expect(found(held.findings, 'xml-entity-known')!.params).to.deep.equal({ names: 'eacute, nbsp, mdash' });
    const plain = await read(
      items12('<presentation><material><mattext>a &amp; b &lt; c</mattext></material></presentation>'),
    );
    expect(found(plain.findings, 'xml-entity-known')).to.equal(undefined);
  });

  it('mark-up escaped twice', async () => {
    const held = await read(items12(stem('&lt;p&gt;One &lt;b&gt;two&lt;/b&gt;&lt;/p&gt;')));
    expect(inspectReport(held).items[0]!.stem).to.equal('One two');
    expect(found(held.findings, 'markup-escaped-twice')!.where.node).to.equal('i1');
    expect(found((await read(items12(stem('<p>One</p>')))).findings, 'markup-escaped-twice')).to.equal(
      undefined,
    );
  });

  it('a dependency on a resource that is not there, by its name', async () => {
    const held = await readZip({
      'imsmanifest.xml': manifest(
        '<resource identifier="a" type="imsqti_xmlv1p2" href="q.xml"><file href="q.xml"/><dependency identifierref="pictures"/></resource>',
      ),
      'q.xml': items12(stem('<p>One</p>')),
    });
    const { params, where } = found(held.findings, 'dependency-missing')!;
    expect([params, where.path, where.node]).to.deep.equal([
      { resource: 'pictures' },
      'imsmanifest.xml',
      'a',
    ]);
  });

  it('a title of a bank that had none', async () => {
    const held = await readZip({
      'night lights.xml':
        '<assessmentSection xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="s7" visible="true"/>',
    });
    expect(held.banks[0]!.title).to.equal('night lights');
    expect(found(held.findings, 'title-missing')!.params).to.deep.equal({ used: 'night lights' });
  });

  it('and a document with a long document type before its root is still known', async () => {
    const declarations = Array.from(
      { length: 3000 },
      (_, n) => `<!ELEMENT e${n} (#PCDATA)> <!-- ] > -->`,
    ).join('\n');
    const held = await readZip({
      'q.xml': `<?xml version="1.0"?><!DOCTYPE questestinterop SYSTEM "ims.dtd" [${declarations}]>\n${items12(stem('<p>One</p>')).replace(/^<\?xml[^>]*\?>/u, '')}`,
    });
    expect([held.items.length, held.format.standard]).to.deep.equal([1, 'qti']);
    expect(found(held.findings, 'doctype-ignored')).to.not.equal(undefined);
  });

  it('and a start that never ends is no root, in no time', async () => {
    for (const start of ['<!DOCTYPE a [', '<!--', '<?', `<!DOCTYPE a ${'[]'.repeat(200_000)}`]) {
      const held = await readZip({
        'q.xml': `${start}${' <x'.repeat(100_000)}`,
        'r.xml': items12(stem('<p>One</p>')),
      });
      expect(held.items.length).to.equal(1);
    }
  });
});
