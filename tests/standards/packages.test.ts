import { expect } from 'chai';
import { unzipSync } from 'fflate';
import JSZip from 'jszip';
import { XmlDocument, type XmlElement } from 'libxml2-wasm';
import { fileReader, readHolding, TARGETS, writeHolding } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { kindsPackage } from '../../demo/kinds.ts';
import { demoFiles } from '../../demo/packages.ts';
import { zipped } from '../../core/src/writing/zip.ts';
import { zip } from '../../demo/zip.ts';

/**
 * What is written, opened by tools that are not ours: JSZip checks the archive and its CRCs, libxml2 the XML.
 * Names and addresses: IMS Content Packaging 1.1.4, Common Cartridge 1.1 to 1.3, QTI 1.2 to 3.0 bindings
 * (from memory).
 */
const SCHEMA: Readonly<Record<string, [schema: string, version: string, namespace: string]>> = {
  'qti1.2': ['IMS Content', '1.1.3', 'http://www.imsglobal.org/xsd/imscp_v1p1'],
  'qti2.1': ['QTIv2.1 Package', '1.0.0', 'http://www.imsglobal.org/xsd/imscp_v1p1'],
  'qti2.2': ['QTIv2.2 Package', '1.0.0', 'http://www.imsglobal.org/xsd/imscp_v1p1'],
  'qti3.0': ['QTI Package', '3.0.0', 'http://www.imsglobal.org/xsd/qti/qtiv3p0/imscp_v1p1'],
  'cc1.1': ['IMS Common Cartridge', '1.1.0', 'http://www.imsglobal.org/xsd/imsccv1p1/imscp_v1p1'],
  'cc1.2': ['IMS Common Cartridge', '1.2.0', 'http://www.imsglobal.org/xsd/imsccv1p2/imscp_v1p1'],
  'cc1.3': ['IMS Common Cartridge', '1.3.0', 'http://www.imsglobal.org/xsd/imsccv1p3/imscp_v1p1'],
};
const sources: [name: string, bytes: Uint8Array][] = [
  ['every-kind.zip', zip(kindsPackage())],
  ...demoFiles()
    .filter((f) => f.name === 'pilotage-week5.imscc' || f.name === 'midterm-export.zip')
    .map((f): [string, Uint8Array] => [f.name, f.bytes]),
];

describe('packages, by tools that are not ours', () => {
  // APPNOTE 6.3.3, 4.3.14 and 4.3.15: Zip64, since an ordinary end record counts to 65,535.
  it('of more files than an ordinary archive can count, with every file there', async () => {
    const count = 66_000;
    const item = (n: number): Uint8Array => new TextEncoder().encode(`<item ident="i${n}"/>`);
    const bytes = zipped(
      new Map(Array.from({ length: count }, (_, n) => [`i/${n}.xml`, item(n)])),
      nodePlatform,
    );
    const archive = await JSZip.loadAsync(bytes);
    const files = Object.values(archive.files).filter((f) => !f.dir);
    expect(files.length).to.equal(count);
    for (const n of [0, 65_534, 65_535, 65_999])
      expect(await archive.file(`i/${n}.xml`)!.async('string')).to.equal(`<item ident="i${n}"/>`);
  });

  // APPNOTE 6.3.3, 4.3.12: where each file stands is counted from the beginning of the archive.
  it('of none, one, and as many as are packed in a run and around that, each where it is said to stand', async () => {
    for (const count of [0, 1, 999, 1000, 1001, 2000, 2500]) {
      const text = (n: number): string => `${n} ${'é'.repeat(n % 7)}`;
      const bytes = zipped(
        Array.from({ length: count }, (_, n) => [`图/${n}.txt`, new TextEncoder().encode(text(n))] as const),
        nodePlatform,
      );
      const archive = await JSZip.loadAsync(bytes, { checkCRC32: true });
      const files = Object.values(archive.files).filter((f) => !f.dir);
      expect(files.map((f) => f.name)).to.deep.equal(
        Array.from({ length: count }, (_, n) => `图/${n}.txt`),
        String(count),
      );
      for (const n of [0, 500, 999, 1000, 1999, 2000, 2499].filter((at) => at < count))
        expect(await files[n]!.async('string'), `${n} of ${count}`).to.equal(text(n));
    }
  });

  // APPNOTE 6.3.3, 4.3.9: sizes that follow the data; a picture and a folder's name in another script besides.
  it('with every byte of every file, whatever it is, and the same bytes each time', async () => {
    const files = new Map([
      ['quiz.xml', new TextEncoder().encode('<quiz/>'.repeat(500))],
      ['图/chart.png', Uint8Array.from({ length: 70_000 }, (_, n) => (n * n) & 255)],
      ['empty.txt', new Uint8Array()],
    ]);
    const bytes = zipped(files, nodePlatform);
    expect(zipped(files, nodePlatform)).to.deep.equal(bytes);
    const archive = await JSZip.loadAsync(bytes, { checkCRC32: true });
    for (const [path, content] of files)
      expect(await archive.file(path)!.async('uint8array'), path).to.deep.equal(content);
    expect(unzipSync(bytes), 'by another reader').to.deep.equal(Object.fromEntries(files));
  });

  for (const target of TARGETS) {
    it(`${target}: a sound zip; well-formed XML; every file listed and there`, async () => {
      for (const [name, bytes] of sources) {
        const holding = await readHolding(name, bytes, nodePlatform);
        const { packages } = writeHolding(
          holding,
          target,
          await fileReader(name, bytes, nodePlatform),
          nodePlatform,
        );
        for (const one of packages) {
          const archive = await JSZip.loadAsync(one, { checkCRC32: true });
          const files = Object.values(archive.files).filter((f) => !f.dir);
          for (const file of files.filter((f) => f.name.endsWith('.xml')))
            XmlDocument.fromString(await file.async('string')).dispose();
          const manifest = XmlDocument.fromString(await archive.file('imsmanifest.xml')!.async('string'));
          const ns = { cp: manifest.root.namespaceUri };
          const text = (path: string): string => (manifest.get(path, ns) as XmlElement).content;
          expect([text('//cp:schema'), text('//cp:schemaversion'), ns.cp]).to.deep.equal(SCHEMA[target]);
          const listed = (manifest.find('//cp:file', ns) as XmlElement[]).map((f) =>
            decodeURIComponent(f.attr('href')!.value),
          );
          expect(new Set(listed)).to.deep.equal(
            new Set(files.map((f) => f.name).filter((n) => n !== 'imsmanifest.xml')),
          );
          const ids = (manifest.find('//cp:resource', ns) as XmlElement[]).map(
            (r) => r.attr('identifier')!.value,
          );
          expect(new Set(ids).size).to.equal(ids.length);
          if (target.startsWith('cc')) {
            // At most one question bank, and none in the organisation (Common Cartridge, "Question Bank").
            const banks = (manifest.find('//cp:resource', ns) as XmlElement[]).filter((r) =>
              r.attr('type')!.value.endsWith('/question-bank'),
            );
            expect(banks.length).to.be.at.most(1);
            const shown = (manifest.find('//cp:item[@identifierref]', ns) as XmlElement[]).map(
              (i) => i.attr('identifierref')!.value,
            );
            for (const bank of banks) expect(shown).to.not.include(bank.attr('identifier')!.value);
          }
          manifest.dispose();
        }
      }
    });
  }
});
