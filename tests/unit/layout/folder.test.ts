import { strFromU8, unzipSync, zipSync } from 'fflate';
import { expect } from 'chai';
import { explainDocuments, keyTexts, readHolding, recognise, totalPoints } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { BOOK, chapterFiles, untidyExam } from '../../../demo/book/files.ts';
import type { BookQuestion } from '../../../demo/book/question.ts';

/** The demo's book: a file a chapter, each in another form, against the questions it was made from. */

const wanted = (q: BookQuestion): string => {
  switch (q.kind) {
    case 'choice':
      return q.right.map((r) => q.choices[r]).join(' | ');
    case 'truth':
      return q.right ? 'True' : 'False';
    case 'word':
      return q.answers.join(' | ');
    case 'number':
      return String(q.value);
    case 'essay':
      return '';
  }
};

describe('a book of twelve chapters, each in another kind of file', () => {
  it('has every key and every point right, without a touch, in one archive however it is packed', async () => {
    const files = await chapterFiles();
    for (const level of [0, 6] as const) {
      const archive = zipSync(Object.fromEntries(files.map((f) => [f.name, f.bytes])), { level });
      const holding = await readHolding('book.zip', archive, nodePlatform);
      expect(holding.banks).to.have.length(12);
      const questions = BOOK.flatMap((c) => c.questions);
      expect(holding.items).to.have.length(questions.length);
      for (const [at, q] of questions.entries()) {
        const item = holding.items[at]!;
        const key = keyTexts(item, recognise(item)).join(' | ');
        if (q.kind === 'number') expect(key.startsWith(wanted(q)), `${q.stem}: ${key}`).to.equal(true);
        else if (q.kind !== 'essay') expect(key, q.stem).to.equal(wanted(q));
        expect(item.points, q.stem).to.equal(q.points);
      }
      expect(totalPoints(holding.items)).to.equal(questions.reduce((sum, q) => sum + q.points, 0));
      const doubted = holding.findings.filter((f) => ['key-unsure', 'blocks-unread'].includes(f.code));
      expect(doubted).to.deep.equal([]);
    }
  });

  it('is the same bytes whenever it is written: filling the demo again brings nothing twice', async () => {
    const [once, again] = [await chapterFiles(), await chapterFiles()];
    expect(again.map((f) => [f.name, f.bytes.length])).to.deep.equal(
      once.map((f) => [f.name, f.bytes.length]),
    );
    for (const [at, file] of once.entries())
      expect(Buffer.compare(Buffer.from(file.bytes), Buffer.from(again[at]!.bytes)), file.name).to.equal(0);
    for (const { name, bytes } of [...once, { name: 'resit.docx', bytes: await untidyExam() }]) {
      if (!/\.(?:docx|xlsx)$/u.test(name)) continue;
      const said = strFromU8(unzipSync(bytes)['docProps/core.xml']!).match(/\d{4}-\d\d-\d\dT/gu);
      expect(new Set(said), name).to.deep.equal(new Set(['1980-01-01T']));
    }
  });

  it('is shown by the same ids as it is read', async () => {
    const archive = zipSync(Object.fromEntries((await chapterFiles()).map((f) => [f.name, f.bytes])));
    const holding = await readHolding('book.zip', archive, nodePlatform);
    const seen = await explainDocuments('book.zip', archive, nodePlatform);
    expect(seen.flatMap((s) => s.built.banks.flatMap((b) => b.items.map((i) => i.id)))).to.deep.equal(
      holding.items.map((i) => i.id),
    );
  });

  it('says of an untidy exam what is in no question, and doubts the key with two marks', async () => {
    const holding = await readHolding('resit.docx', await untidyExam(), nodePlatform);
    expect(holding.items).to.have.length(5);
    expect(holding.findings.filter((f) => f.code === 'key-unsure').map((f) => f.where.node)).to.deep.equal([
      'q3',
    ]);
    expect(holding.documents![0]!.unread.map((u) => u.text)).to.include.members([
      'Name and number on each sheet. No telephones.',
      '(Ask for the old chart at the desk; it is the one with the coffee stain.)',
    ]);
  });

  it('one bad table leaves the other files', async () => {
    const [first] = await chapterFiles();
    const broken = zipSync({
      'xl/workbook.xml': new Uint8Array(8),
      '[Content_Types].xml': new Uint8Array(4),
    });
    const archive = zipSync({
      'a.docx': first!.bytes,
      'b.xlsx': broken,
      'marks.csv': new TextEncoder().encode('x,y,z\n1,2,3\n4,5,6\n'),
    });
    const holding = await readHolding('mixed.zip', archive, nodePlatform);
    expect(holding.banks).to.have.length(1);
    expect(holding.findings.map((f) => [f.code, f.where.path])).to.deep.include([
      'questions-none',
      'marks.csv',
    ]);
    expect(holding.findings.some((f) => f.where.path === 'b.xlsx' && f.severity !== 'note')).to.equal(true);
  });
});
