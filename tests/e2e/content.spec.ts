import { expect, test, type Locator, type Page } from './support/test.ts';
import { strToU8, zipSync } from 'fflate';
import { harbourChart } from '../../demo/pictures.ts';
import { base, bring, expectAccessible, openBrought } from './support/page.ts';

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
  await openBrought(page, name);
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

test('lists, code, vertical text, quotations and long words take their room and stay on the page', async ({
  page,
}) => {
  const long = 'Donaudampfschifffahrtsgesellschaft'.repeat(12);
  const xml = item(
    `<ul><li>a point</li></ul><ol start="3"><li>third</li></ol><pre>heading = 214\nspeed = 6</pre><p><code>fix()</code> <kbd>Enter</kbd></p>
<blockquote>Keep a good look-out</blockquote><div style="writing-mode: vertical-rl; height: 120px">潮位は四メートル</div><p>${long}</p><h2>A heading</h2>`,
  );
  const article = await open(page, 'shapes.xml', strToU8(xml));
  await expectSize(article.locator('li', { hasText: 'a point' }), 40, 10);
  expect(await article.locator('ul').evaluate((e) => getComputedStyle(e).listStyleType)).toBe('disc');
  await expectSize(article.locator('pre').first(), 100, 30);
  expect(await article.locator('code').evaluate((e) => getComputedStyle(e).fontFamily)).toContain(
    'monospace',
  );
  const vertical = (await article.getByText('潮位は四メートル').boundingBox())!;
  expect(vertical.height).toBeGreaterThan(100);
  const column = (await article.boundingBox())!;
  const word = (await article.getByText(long.slice(0, 40)).boundingBox())!;
  expect(word.x + word.width).toBeLessThanOrEqual(column.x + column.width);
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
});

test('sound and film have their controls, and a film its captions', async ({ page }) => {
  const xml = item(
    '<p><audio src="horn.wav"><track kind="captions" src="horn.vtt" srclang="en" label="English"/></audio></p><p><video src="fix.mp4"><track kind="captions" src="fix.vtt" srclang="en" label="English"/></video></p>',
  ).replaceAll('qti_v2p1', 'qti_v2p2');
  const bytes = zipSync({
    'imsmanifest.xml': strToU8(
      '<manifest identifier="M" xmlns="http://www.imsglobal.org/xsd/imscp_v1p1"><resources><resource identifier="r" type="imsqti_item_xmlv2p2" href="i.xml"><file href="i.xml"/><file href="horn.wav"/><file href="fix.mp4"/><file href="horn.vtt"/><file href="fix.vtt"/></resource></resources></manifest>',
    ),
    'i.xml': strToU8(xml),
    'horn.wav': new Uint8Array(44),
    'fix.mp4': new Uint8Array(44),
    'horn.vtt': strToU8('WEBVTT\n'),
    'fix.vtt': strToU8('WEBVTT\n'),
  });
  const article = await open(page, 'media.zip', bytes);
  await expectSize(article.locator('audio'), 100, 20);
  await expectSize(article.locator('video'), 100, 50);
  expect(await article.locator('video').evaluate((e) => (e as HTMLVideoElement).textTracks.length)).toBe(1);
});

test('formulas of LaTeX are set in the text, in choices and in feedback; broken ones stay as typed', async ({
  page,
}) => {
  const xml = item(
    '<p>Speed is \\(\\frac{D}{T}\\), and \\[\\sqrt{x^2+y^2}\\] and \\(\\frac{\\) stays.</p>',
    '<simpleChoice identifier="b">\\(x^3\\) knots<feedbackInline outcomeIdentifier="SCORE" identifier="b" showHide="show">since \\(y^2\\)</feedbackInline></simpleChoice>',
  );
  const article = await open(page, 'tex.xml', strToU8(xml));
  await expectSize(article.locator('p mfrac').first(), 8, 15);
  await expectSize(article.locator('msqrt'), 20, 10);
  await expectSize(article.locator('label math').first(), 5, 8);
  await expect(article.getByText('\\(\\frac{\\) stays.')).toBeVisible();
  await expect(article.getByRole('group').getByText('a plain one')).toBeVisible();
  // Thirty thousand openings, none closed: the page answers at once.
  const many = await open(page, 'many.xml', strToU8(item(`<p>${'\\( '.repeat(30_000)}</p>`)));
  await expect(many.getByRole('group').getByText('a plain one')).toBeVisible({ timeout: 10_000 });
});

test('formulas in rubrics and in what students are told take their room', async ({ page }) => {
  const formula = `<math ${MATH}><mfrac><mi>D</mi><mi>T</mi></mfrac></math>`;
  const xml = item(
    `<rubricBlock view="candidate"><p>Remember ${formula}</p></rubricBlock><p>Speed?</p>`,
  ).replace(
    '</assessmentItem>',
    `<modalFeedback outcomeIdentifier="SCORE" identifier="1" showHide="show"><p>It is ${formula}</p></modalFeedback></assessmentItem>`,
  );
  const article = await open(page, 'told.xml', strToU8(xml));
  await expect(article.locator('mfrac')).toHaveCount(2);
  for (const at of [0, 1]) await expectSize(article.locator('mfrac').nth(at), 5, 15);
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
