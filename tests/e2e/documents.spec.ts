import { Document, ImageRun, Math as Formula, MathFraction, MathRun, Packer, Paragraph, TextRun } from 'docx';
import { PNG } from 'pngjs';
import { expect, test } from './support/test.ts';
import { bring, openBrought } from './support/page.ts';

/** A chapter as a word processor writes it: a picture, a formula, keys in bold. */
async function chapter(): Promise<Uint8Array> {
  const png = new PNG({ width: 120, height: 60 });
  png.data.fill(160);
  const picture = new ImageRun({
    type: 'png',
    data: PNG.sync.write(png),
    transformation: { width: 120, height: 60 },
  });
  const formula = new Formula({
    children: [new MathFraction({ numerator: [new MathRun('D')], denominator: [new MathRun('T')] })],
  });
  const choices = (...texts: string[]): Paragraph[] =>
    texts.map(
      (t, at) =>
        new Paragraph({
          children: [new TextRun({ text: `${'abc'[at]}. ${t.replace('*', '')}`, bold: t.startsWith('*') })],
        }),
    );
  const children = [
    new Paragraph('1. Which buoy is on this picture?'),
    new Paragraph({ children: [picture] }),
    ...choices('a cardinal mark', '*a lateral mark', 'a danger mark'),
    new Paragraph({ children: [new TextRun('2. What is worked out by '), formula, new TextRun(' here?')] }),
    ...choices('*speed', 'distance', 'time'),
    new Paragraph('3. Which light is at starboard?'),
    ...choices('red', '*green', 'white'),
  ];
  return new Uint8Array(await Packer.toBuffer(new Document({ sections: [{ children }] })));
}

test('a word-processor file is a bank: keys, a picture and a formula as they are seen', async ({ page }) => {
  await bring(page, 'chapter-seven.docx', await chapter());
  await openBrought(page, 'chapter-seven.docx');
  await expect(page.getByText('Word-processor file')).toBeVisible();
  await expect(page.getByRole('option')).toHaveCount(3);
  await page.getByRole('option').first().click();
  await expect(page.getByText(/chapter-seven\.docx, page 1, paragraph 1/u)).toBeVisible();
  const picture = page.locator('img[src*="embedded"]').first();
  await expect.poll(async () => (await picture.boundingBox())?.width ?? 0).toBeGreaterThan(80);
  await page.getByRole('option').nth(1).click();
  const formula = page.locator('math').first();
  await expect.poll(async () => (await formula.boundingBox())?.height ?? 0).toBeGreaterThan(14);
  await page.getByRole('button', { name: 'Try it' }).click();
  await page.getByLabel('speed').check();
  await page.getByRole('button', { name: 'Score it' }).click();
  await expect(page.getByText('1 of 1 points')).toBeVisible();
});
