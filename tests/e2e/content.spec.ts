import { expect, test, type Locator, type Page } from '@playwright/test';
import { strToU8, zipSync } from 'fflate';
import { harbourChart } from '../../demo/pictures.ts';
import { base, bring, expectAccessible } from './support/page.ts';

/** What is shown is tested as seen: by the room it takes on the screen. */
async function expectSize(what: Locator, width: number, height: number): Promise<void> {
  await expect(what).toBeVisible();
  const box = (await what.boundingBox())!;
  expect(box.width, 'width').toBeGreaterThan(width);
  expect(box.height, 'height').toBeGreaterThan(height);
}

const MATH = 'xmlns="http://www.w3.org/1998/Math/MathML"';
const item = (body: string, choices = ''): string =>
  `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="i1" title="One" adaptive="false" timeDependent="false">
<responseDeclaration identifier="R" cardinality="single" baseType="identifier"><correctResponse><value>a</value></correctResponse></responseDeclaration>
<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>
<itemBody>${body}<choiceInteraction responseIdentifier="R" maxChoices="1" shuffle="false">${choices}<simpleChoice identifier="a">a plain one</simpleChoice></choiceInteraction></itemBody>
<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/match_correct"/></assessmentItem>`;

async function open(page: Page, name: string, bytes: Uint8Array): Promise<Locator> {
  await bring(page, name, bytes);
  await page.getByRole('link', { name }).click();
  const article = page.getByRole('article');
  await expect(article).toBeVisible();
  return article;
}

test('formulas of a package have a size: fractions, roots, fences, in the text and in choices', async ({
  page,
}) => {
  const formula = `<math ${MATH} display="block"><mi>d</mi><mo>=</mo><mfrac><mi>D</mi><msqrt><mi>T</mi></msqrt></mfrac></math>`;
  const fenced = `<math ${MATH}><mfenced><mi>x</mi><mi>y</mi></mfenced></math>`;
  const xml = item(
    `<p>Find ${formula} at ${fenced}.</p>`,
    `<simpleChoice identifier="b"><math ${MATH}><msup><mn>2</mn><mn>3</mn></msup></math></simpleChoice>`,
  );
  const article = await open(page, 'seen.xml', strToU8(xml));
  await expectSize(article.locator('math').nth(0), 30, 20);
  await expectSize(article.locator('mfrac'), 8, 20);
  await expectSize(article.locator('msqrt'), 5, 8);
  await expectSize(article.locator('mo', { hasText: '(' }), 2, 8);
  await expectSize(article.locator('label math'), 8, 8);
  const namespace = await article.locator('mfrac').evaluate((e) => e.namespaceURI);
  expect(namespace).toBe('http://www.w3.org/1998/Math/MathML');
  // Seen after a reload, as the server wrote it, and after going to it within the page.
  await page.reload();
  await expectSize(page.getByRole('article').locator('mfrac'), 8, 20);
  await expectAccessible(page, 'formulas');
});

test('pictures, tables, ruby and text from right to left take their room', async ({ page }) => {
  const xml = item(
    '<p><img src="chart.png" alt="A chart"/></p><table><tr><th>Height</th><td>4.2 m</td></tr></table><p><ruby>潮<rt>しお</rt></ruby> <span dir="rtl">مد وجزر</span></p>',
  );
  const bytes = zipSync({
    'imsmanifest.xml': strToU8(
      '<manifest identifier="M" xmlns="http://www.imsglobal.org/xsd/imscp_v1p1"><resources><resource identifier="r" type="imsqti_item_xmlv2p1" href="i.xml"><file href="i.xml"/><file href="chart.png"/></resource></resources></manifest>',
    ),
    'i.xml': strToU8(xml),
    'chart.png': harbourChart(0),
  });
  const article = await open(page, 'seen.zip', bytes);
  await expectSize(article.getByRole('img', { name: 'A chart' }), 100, 50);
  expect(
    await article.getByRole('img', { name: 'A chart' }).evaluate((e) => (e as HTMLImageElement).naturalWidth),
  ).toBeGreaterThan(100);
  await expectSize(article.getByRole('cell', { name: '4.2 m' }), 20, 10);
  await expectSize(article.locator('rt'), 5, 4);
  await expectSize(article.getByText('مد وجزر'), 20, 10);
});

test('identifiers that repeat break no page', async ({ page }) => {
  const failures: Error[] = [];
  page.on('pageerror', (error) => failures.push(error));
  const twice =
    '<simpleChoice identifier="a">first</simpleChoice><simpleChoice identifier="a">second</simpleChoice>';
  const article = await open(page, 'twice.xml', strToU8(item('<p>Which?</p>', twice)));
  await expect(article.getByText('first', { exact: true })).toBeVisible();
  await expect(article.getByText('second', { exact: true })).toBeVisible();
  await article.getByRole('button', { name: 'Try it' }).click();
  await article.getByLabel('a plain one').check();
  await article.getByRole('button', { name: 'Score it' }).click();
  await expect(article.getByText('1 of 1 point')).toBeVisible();
  const order = `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="o" title="Order" adaptive="false" timeDependent="false">
<responseDeclaration identifier="R" cardinality="ordered" baseType="identifier"><correctResponse><value>a</value><value>b</value></correctResponse></responseDeclaration>
<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><itemBody><orderInteraction responseIdentifier="R" shuffle="false">
<simpleChoice identifier="a">one</simpleChoice><simpleChoice identifier="a">one again</simpleChoice><simpleChoice identifier="b">two</simpleChoice></orderInteraction></itemBody></assessmentItem>`;
  const ordering = await open(page, 'order-twice.xml', strToU8(order));
  await ordering.getByRole('button', { name: 'Try it' }).click();
  await ordering.getByRole('button', { name: 'Later: place 1' }).click();
  await expect(ordering.getByText('one again')).toBeVisible();
  await expect(ordering.getByRole('button', { name: /^Later/u })).toHaveCount(3);
  expect(failures.map((e) => e.message)).toEqual([]);
});

test('an item may be called constructor: it is shown, answered and scored', async ({ page }) => {
  const xml = item('<p>Odd names</p>').replaceAll('"R"', '"constructor"');
  const article = await open(page, 'odd.xml', strToU8(xml));
  await article.getByRole('button', { name: 'Try it' }).click();
  await article.getByLabel('a plain one').check();
  await article.getByRole('button', { name: 'Score it' }).click();
  await expect(article.getByText('1 of 1 point')).toBeVisible();
  expect(base).toContain('127.0.0.1');
});
