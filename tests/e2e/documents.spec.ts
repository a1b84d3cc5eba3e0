import { Document, ImageRun, Math as Formula, MathFraction, MathRun, Packer, Paragraph, TextRun } from 'docx';
import { PNG } from 'pngjs';
import { expect, test } from './support/test.ts';
import { base, bring, expectAccessible, openBrought } from './support/page.ts';

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

test('questions that are pasted are read with their looks; typed ones as text', async ({ page }) => {
  await page.goto(base);
  await page.getByRole('button', { name: 'Paste text…' }).click();
  const box = page.getByRole('textbox', { name: /^Questions with their choices/u });
  await box.evaluate((element) => {
    const data = new DataTransfer();
    data.setData(
      'text/plain',
      '1. Which side is port?\r\na. left\r\nb. right\r\n2. And starboard?\r\na. left\r\nb. right',
    );
    const choice = (text: string, bold: boolean): string =>
      bold ? `<p><b>${text}</b></p>` : `<p>${text}</p>`;
    const html = [
      '<span></span>',
      '<p>1. Which side is port?</p>',
      choice('a. left', true),
      choice('b. right', false),
      '<p>2. And starboard?</p>',
      choice('a. left', false),
      choice('b. right', true),
    ];
    data.setData('text/html', html.join(''));
    element.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expect(page.getByText('Bold, colours and lists come along.')).toBeVisible();
  await expectAccessible(page, 'questions to paste');
  await page.getByRole('button', { name: 'Read them' }).click();
  await openBrought(page, 'Pasted questions.html');
  await expect(page.getByRole('option')).toHaveCount(2);
  await page.getByRole('option').nth(1).click();
  await expect(page.getByText('1 point for exactly the key')).toBeVisible();
  await page.goto(base);
  await page.getByRole('button', { name: 'Paste text…' }).click();
  await box.fill('1. Which side is port?\na. left\nb. right\nAnswer: a\n');
  await page.getByRole('button', { name: 'Read them' }).click();
  await openBrought(page, 'Pasted questions.txt');
  await expect(page.getByRole('option')).toHaveCount(1);
});
