import { expect } from 'chai';
import fc from 'fast-check';
import { own, put, TARGETS } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { detectDocument, detectFile, packageFormat } from '../../../core/src/formats/table.ts';
import { rootOf } from '../../../core/src/intake/rootOf.ts';
import { bytesOf, codes, read, readZip, zip } from '../../support/read.ts';

describe('the table of formats', () => {
  const roots: readonly [xml: string, kind: string | null, version: string | null][] = [
    ['<questestinterop/>', 'asi', '1.2'],
    ['<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p2"/>', 'item', '2.2'],
    ['<assessmentTest xmlns="http://www.imsglobal.org/xsd/imsqti_v2p0"/>', 'test', '2.0'],
    ['<assessmentItem/>', 'item', '2.1'],
    ['<qti-assessment-item xmlns="http://www.imsglobal.org/xsd/imsqtiasi_v3p0"/>', 'item', '3.0'],
    ['<qti-assessment-stimulus/>', 'stimulus', '3.0'],
    ['<wl:webLink xmlns:wl="http://www.imsglobal.org/xsd/imsccv1p1/imswl_v1p1"/>', 'weblink', null],
    ['<cartridge_basiclti_link/>', 'lti', null],
    ['<html/>', null, null],
    ['<constructor/>', null, null],
    ['no mark-up', null, null],
  ];
  for (const [xml, kind, version] of roots)
    it(`knows ${xml} by its root`, () => {
      const found = detectDocument(`<?xml version="1.0"?><!-- a remark --> ${xml}`);
      expect([found?.kind ?? null, found?.version ?? null]).to.deep.equal([kind, version]);
    });

  const files: readonly [what: string, content: string | Uint8Array, known: string | null][] = [
    ['a table with a header that is known', 'Criterion,Level 1\nFixes,Good', 'csv table'],
    ['a table with any header, even rows', 'a;b;c\n1;2;3\n4;5;6', 'csv table'],
    ['a table in letters of several bytes', 'é,ü,ñ\nß,ø,å\næ,č,ž', 'csv table'],
    ['CASE', '{"CFPackage":{}}', 'json case'],
    ['other JSON', ' [1, 2]', 'json unknown'],
    ['words', 'Once upon a time,\nthere was a tide.', 'text document'],
    ['a workbook', zip({ '[Content_Types].xml': '<x/>', 'xl/workbook.xml': '<x/>' }), 'xlsx table'],
    ['a document', zip({ '[Content_Types].xml': '<x/>', 'word/document.xml': '<x/>' }), 'docx document'],
    ['a package', zip({ 'imsmanifest.xml': '<manifest/>' }), null],
    ['XML', '\n<questestinterop/>', null],
  ];
  for (const [what, content, known] of files)
    it(`knows ${what} by its first bytes, or leaves it to the packages`, async () => {
      const found = await detectFile(bytesOf(content), nodePlatform);
      expect(found && `${found.format.container} ${found.format.standard}`).to.equal(known);
    });

  it('says of what holds no questions that it holds none, or that it is not known', async () => {
    expect(codes(await read('Once upon a time.', 'story.txt'))).to.deep.equal([
      'questions-none',
      'format-unknown',
    ]);
    expect(codes(await read('{"a":1}', 'a.json'))).to.deep.equal(['format-unknown']);
  });

  it('has one writer for every target', () => {
    for (const target of TARGETS) expect(packageFormat(target).targets, target).to.include(target);
    expect(new Set(TARGETS).size).to.equal(TARGETS.length);
  });

  it('finds a root behind a document type and remarks, and none where there is none', () => {
    expect(rootOf('<!DOCTYPE a [<!ENTITY x "<b/>">]>\n<!-- <c/> -->\n<p:d e="f">')).to.deep.equal({
      name: 'd',
      attributes: ' e="f"',
    });
    for (const text of ['', '   ', '<', '<!-- open', '{"a":1}']) expect(rootOf(text), text).to.equal(null);
  });

  it('names a document whose declared type says something else', async () => {
    const manifest = (type: string): string =>
      `<manifest identifier="M" xmlns="http://www.imsglobal.org/xsd/imscp_v1p1"><resources><resource identifier="r" type="${type}" href="i.xml"><file href="i.xml"/></resource></resources></manifest>`;
    const item =
      '<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="i" title="t" adaptive="false" timeDependent="false"><itemBody/></assessmentItem>';
    const wrong = async (type: string, document: string): Promise<string | null> => {
      const { findings } = await readZip({ 'imsmanifest.xml': manifest(type), 'i.xml': document });
      const found = findings.find((f) => f.code === 'declared-type-wrong');
      return found ? String(found.params['found']) : null;
    };
    expect(await wrong('imsqti_item_xmlv2p1', item)).to.equal(null);
    expect(await wrong('imsqti_test_xmlv2p1', item)).to.equal('QTI 2.1 item');
    expect(
      await wrong(
        'imsqti_xmlv1p2/imscc_xmlv1p1/question-bank',
        '<questestinterop><assessment ident="a"/></questestinterop>',
      ),
    ).to.equal('assessment');
    expect(await wrong('imsbasiclti_xmlv1p0', '<webLink><title>x</title></webLink>')).to.equal('web link');
  });

  it('reads an empty document of each kind without falling over', async () => {
    for (const [xml, kind] of roots) {
      const holding = await read(xml, 'given.xml');
      expect(holding.source.name, `${kind}`).to.equal('given.xml');
    }
  });
});

describe('records by foreign names', () => {
  it('answer with what was put there, and with nothing else', () => {
    fc.assert(
      fc.property(fc.string(), fc.integer(), fc.string(), (name, value, other) => {
        const record: Record<string, number> = {};
        put(record, name, value);
        expect(own(record, name)).to.equal(value);
        if (other !== name) expect(own(record, other)).to.equal(undefined);
      }),
      {
        examples: [
          ['__proto__', 1, 'constructor'],
          ['constructor', 2, 'valueOf'],
        ],
      },
    );
  });
});
