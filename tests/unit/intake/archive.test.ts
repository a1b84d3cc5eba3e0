import { expect } from 'chai';
import { DEFAULT_LIMITS, openArchive, readHolding, Refusal, type Platform } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { codes, read, readZip, zip } from '../../support/read.ts';
import { zipped } from '../../../core/src/writing/zip.ts';
import { rawZip, type RawEntry } from '../../support/rawZip.ts';

const plain = (name: string, over: Partial<RawEntry> = {}): RawEntry => ({
  name,
  content: 'some text',
  ...over,
});

async function refusal(bytes: Uint8Array, limits = DEFAULT_LIMITS): Promise<string> {
  try {
    await openArchive('given.zip', bytes, nodePlatform, limits);
    return 'opened';
  } catch (error) {
    if (error instanceof Refusal) return error.finding.code;
    throw error;
  }
}

describe('intake: the guarded door for archives', () => {
  const hostile: [what: string, entries: RawEntry[], code: string][] = [
    ['a name that climbs out', [plain('../evil.txt')], 'archive-unsafe-name'],
    ['a climb hidden inside', [plain('a/../../evil.txt')], 'archive-unsafe-name'],
    ['a climb with backslashes', [plain('a\\..\\..\\evil.txt')], 'archive-unsafe-name'],
    ['an absolute name', [plain('/etc/passwd')], 'archive-unsafe-name'],
    ['a drive letter', [plain('C:\\evil.txt')], 'archive-unsafe-name'],
    ['a control character', [plain('a\u0000.xml')], 'archive-unsafe-name'],
    ['a symbolic link', [plain('link', { unixMode: 0o120777 })], 'archive-unsafe-name'],
    ['two names for one entry', [plain('safe.xml', { localName: 'evil.xml' })], 'archive-unsafe-name'],
    ['two entries of one name', [plain('a.xml'), plain('a.xml')], 'archive-duplicate-name'],
    ['the same name by another slash', [plain('x/a.xml'), plain('x\\a.xml')], 'archive-duplicate-name'],
    ['an encrypted entry', [plain('a.xml', { flags: 0x801 })], 'archive-encrypted'],
    ['a size that is too small', [plain('a.xml', { declaredSize: 3 })], 'archive-size-false'],
    ['a size that is too large', [plain('a.xml', { declaredSize: 300 })], 'archive-size-false'],
    [
      'overlapping entries',
      [plain('a.xml'), plain('a.xml2', { localName: 'a.xml', sharesDataWith: 0 })],
      'archive-unsafe-name',
    ],
    ['data past the end', [plain('a.xml', { declaredPacked: 5000 })], 'archive-truncated'],
  ];
  for (const [what, entries, code] of hostile) {
    it(`refuses ${what}`, async () => expect(await refusal(rawZip(entries))).to.equal(code));
  }

  it('refuses entries that share their data', async () => {
    const bytes = rawZip([plain('a.xml'), plain('b.xml', { sharesDataWith: 0, localName: 'b.xml' })]);
    // The second directory record points at the first entry's header.
    expect(await refusal(bytes)).to.be.oneOf(['archive-size-false', 'archive-unsafe-name']);
  });

  it('keeps each limit, and says which one was met', async () => {
    const many = rawZip([plain('a'), plain('b'), plain('c')]);
    expect(await refusal(many, { ...DEFAULT_LIMITS, maxEntries: 2 })).to.equal('archive-too-large');
    expect(await refusal(many, { ...DEFAULT_LIMITS, maxUnpacked: 20 })).to.equal('archive-too-large');
    expect(await refusal(many, { ...DEFAULT_LIMITS, maxPacked: 50 })).to.equal('archive-too-large');
    const bomb = rawZip([{ name: 'zeros', content: new Uint8Array(3_000_000) }]);
    expect(await refusal(bomb)).to.equal('archive-too-large');
    expect(await refusal(bomb, { ...DEFAULT_LIMITS, maxRatio: 100_000 })).to.equal('opened');
  });

  it('is not fooled by a declared size below the limit', async () => {
    const bomb = rawZip([{ name: 'zeros', content: new Uint8Array(3_000_000), declaredSize: 1000 }]);
    expect(await refusal(bomb)).to.equal('archive-size-false');
  });

  it('refuses what is cut off at any place', async () => {
    const whole = zip({ 'a.xml': 'x'.repeat(500), 'b.xml': 'y'.repeat(500) });
    for (let cut = 30; cut < whole.length; cut += 37) {
      expect(await refusal(whole.subarray(0, cut)), `cut at ${cut}`).to.equal('archive-truncated');
    }
  });

  it('leaves out one damaged entry and reads the rest', async () => {
    const bytes = rawZip([plain('bad.txt', { crc: 1 }), plain('odd.txt', { method: 12 }), plain('good.txt')]);
    const archive = await openArchive('given.zip', bytes, nodePlatform);
    expect([...archive.files.keys()]).to.deep.equal(['good.txt']);
    expect(archive.findings.map((f) => f.code)).to.deep.equal(['archive-crc', 'archive-method']);
  });

  it('reads a name like __proto__ as just a name', async () => {
    const archive = await openArchive(
      'z',
      rawZip([plain('__proto__'), plain('constructor/x')]),
      nodePlatform,
    );
    expect([...archive.files.keys()]).to.deep.equal(['__proto__', 'constructor/x']);
    expect(Object.prototype).to.not.have.property('path');
  });

  it('passes over bytes before and after, operating-system files and a folder around everything', async () => {
    const inner = zip({
      'Export/imsmanifest.xml': MANIFEST,
      'Export/q.xml': QUIZ,
      'Export/.DS_Store': 'x',
      '__MACOSX/._q.xml': 'x',
    });
    const surrounded = Buffer.concat([Buffer.from('#!/bin/sh rubbish\n'), inner, Buffer.from('tail')]);
    const holding = await read(surrounded, 'anything.bin');
    expect(holding.items.map((i) => i.id)).to.deep.equal(['i1']);
    expect(codes(holding)).to.include.members([
      'archive-surrounded',
      'wrapper-folder',
      'system-files-ignored',
    ]);
  });

  it('lists as many entries as the size of an archive allows', async () => {
    const many = rawZip(Array.from({ length: 30 }, (_, n) => plain(`${n}.txt`)));
    const limits = { ...DEFAULT_LIMITS, maxEntries: 10 };
    expect(await refusal(many, limits)).to.equal('archive-too-large');
    expect(await refusal(many, { ...limits, bytesPerEntry: many.length / 30 })).to.equal('opened');
    expect(await refusal(many, { ...limits, bytesPerEntry: many.length / 29 })).to.equal('archive-too-large');
  });

  it('gives a file again after it was given for the last time', async () => {
    const archive = await openArchive('given.zip', zip({ 'a.xml': '<a/>' }), nodePlatform);
    const texts = [archive.take('a.xml'), archive.read('a.xml'), archive.take('b.xml')];
    expect(texts.map((t) => t && new TextDecoder().decode(t))).to.deep.equal(['<a/>', '<a/>', null]);
  });

  it('tells of each file while it is unpacked, but of none that the system left behind', async () => {
    const files = { 'a.xml': '<a/>', 'b/c.txt': 'c', '.DS_Store': 'x' };
    const told = new Map<string, string>();
    const look = (sha256: string, content: Uint8Array): void =>
      void told.set(sha256, new TextDecoder().decode(content));
    const archive = await openArchive('given.zip', zip(files), nodePlatform, DEFAULT_LIMITS, look);
    expect([...archive.files.values()].map((f) => [f.path, told.get(f.sha256)])).to.deep.equal([
      ['a.xml', '<a/>'],
      ['b/c.txt', 'c'],
    ]);
    expect(told.size).to.equal(2);
  });

  it('unpacks texts that are not kept once to look at them, and once to read them', async () => {
    const unpacked: number[] = [];
    const platform: Platform = {
      ...nodePlatform,
      inflateRaw: (data, most) => (unpacked.push(most), nodePlatform.inflateRaw(data, most)),
    };
    const files = { 'q.xml': QUIZ, 'notes.txt': 'no question', 'odd.xml': '<drawing/>' };
    const holding = await readHolding('given.zip', zip(files), platform, { maxKept: 0 });
    expect(holding.items.map((i) => i.id)).to.deep.equal(['i1']);
    expect(unpacked).to.have.length(4);
  });

  it('gives texts of any size, though only some of them stay unpacked', async () => {
    const text = (n: number): string => `<a n="${n}">${'any text '.repeat(20)}</a>`;
    const files = Object.fromEntries(Array.from({ length: 12 }, (_, n) => [`${n}.xml`, text(n + 10)]));
    let unpacked = 0;
    const platform: Platform = {
      ...nodePlatform,
      inflateRaw: (...given) => {
        unpacked += 1;
        return nodePlatform.inflateRaw(...given);
      },
    };
    const limits = { ...DEFAULT_LIMITS, maxKept: 8 * text(10).length };
    const archive = await openArchive('given.zip', zip(files), platform, limits);
    const opened = unpacked;
    const texts = Object.keys(files).map((path) => new TextDecoder().decode(archive.take(path)!));
    expect(texts).to.deep.equal(Object.values(files));
    expect(unpacked - opened, 'those beyond the limit').to.equal(4);
  });

  it('reads an archive with a Zip64 end, and what stands before or after it', async () => {
    const entries = 66_000;
    const long = zipped(
      new Map(Array.from({ length: entries }, (_, n) => [`${n}.txt`, new Uint8Array([n & 255])])),
      nodePlatform,
    );
    const limits = { ...DEFAULT_LIMITS, maxEntries: entries };
    const whole = await openArchive('given.zip', long, nodePlatform, limits);
    expect(whole.files.size).to.equal(entries);
    expect(whole.findings).to.deep.equal([]);
    expect(whole.read('65999.txt')).to.deep.equal(Buffer.from([65_999 & 255]));
    const within = Buffer.concat([Buffer.from('before'), long, Buffer.from('after')]);
    const found = await openArchive('given.zip', within, nodePlatform, limits);
    expect(found.files.size).to.equal(entries);
    expect(found.findings.map((f) => f.code)).to.deep.equal(['archive-surrounded']);
    for (const cut of [10, 30, 90])
      expect(await refusal(long.subarray(0, long.length - cut), limits)).to.equal('archive-truncated');
  });

  it('reads a package in a package, and no deeper', async () => {
    const inner = zip({ 'imsmanifest.xml': MANIFEST, 'q.xml': QUIZ });
    const middle = zip({ 'imsmanifest.xml': MANIFEST, 'q.xml': QUIZ, 'deep.zip': inner });
    const holding = await readZip({ 'imsmanifest.xml': MANIFEST, 'q.xml': QUIZ, 'inner.zip': middle });
    expect(holding.items.map((i) => i.id)).to.deep.equal(['i1', 'i1#2']);
    expect(holding.items[1]!.origin?.path).to.equal('inner.zip!/q.xml');
    expect(codes(holding)).to.include.members(['nested-package', 'archive-nested-too-deep']);
  });
});

const MANIFEST = `<manifest identifier="M" xmlns="http://www.imsglobal.org/xsd/imscp_v1p1"><resources><resource identifier="R" type="imsqti_xmlv1p2" href="q.xml"><file href="q.xml"/></resource></resources></manifest>`;
const QUIZ = `<questestinterop><item ident="i1"><presentation><material><mattext>Q</mattext></material></presentation></item></questestinterop>`;
