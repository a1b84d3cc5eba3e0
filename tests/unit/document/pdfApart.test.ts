import { expect } from 'chai';
import { readHolding, type Platform } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { readPdfApart } from '../../../core/node/pdfApart.ts';
import { asPdf } from '../../../demo/book/documents.ts';
import { laughingPdf } from '../../hostile/pdf.ts';
import { zip } from '../../support/read.ts';

const QUESTION = ['1. Which light is at port?', 'a. green', 'b. red', 'Answer: b'].map((text) => ({ text }));
const WITHIN_MS = 400;

const why = (reading: Promise<unknown>): Promise<string> =>
  reading.then(
    () => 'read',
    (error: Error) => `${error.name}: ${error.message}`,
  );

describe('a PDF that the library does not come back from', () => {
  it('is given up after its time, and the next ones are read', async () => {
    const good = await asPdf('Good', QUESTION);
    const bad = laughingPdf(9, 10);
    const all = await Promise.all([
      why(readPdfApart(good)),
      why(readPdfApart(bad, WITHIN_MS)),
      why(readPdfApart(good)),
      why(readPdfApart(Buffer.from('%PDF-1.4\n%%EOF'))),
      why(readPdfApart(good)),
    ]);
    expect([all[0], all[1], all[2], all[4]]).to.deep.equal([
      'read',
      'PdfBeyond: 0.4 seconds',
      'read',
      'read',
    ]);
    expect(all[3]).to.match(/^InvalidPDFException: /u);
  });

  it('draws what it says within its time, where that is little', async () => {
    expect((await readPdfApart(laughingPdf(2, 3))).pages).to.have.length(1);
  });

  it('costs itself, and not the archive it is in', async () => {
    const impatient: Platform = {
      ...nodePlatform,
      readPdf: (bytes) => readPdfApart(bytes, Buffer.from(bytes).includes('/F Do') ? WITHIN_MS : undefined),
    };
    const good = await asPdf('Good', QUESTION, { compress: false });
    const bytes = zip({ 'a.pdf': laughingPdf(9, 10), 'b.pdf': good });
    const { items, findings } = await readHolding('two.zip', bytes, impatient);
    expect(items.map((i) => i.responses[0]?.correct)).to.deep.equal([['B']]);
    const [found] = findings.filter((f) => f.severity === 'error');
    expect([found?.code, found?.where.path]).to.deep.equal(['document-beyond', 'a.pdf']);
  });
});
