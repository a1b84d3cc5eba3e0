import { expect, test, type Page } from './support/test.ts';
import { KINDS } from '../../demo/kinds.ts';
import { bankXml, document as qti, PLAIN } from '../../demo/qti12.ts';
import { LIGHTS_BANK } from '../../demo/items.ts';
import { base, bring, expectAccessible, openBrought, quiet } from './support/page.ts';

/** Full marks for each kind, given as somebody without a mouse would. */
const ANSWERS: Readonly<Record<string, (page: Page) => Promise<void>>> = {
  choice: (p) => p.getByLabel('One all-round white light').check(),
  order: async (p) => {
    await p.getByRole('button', { name: 'Take them in this order' }).press('Enter');
    await p.getByRole('button', { name: 'Later: place 1' }).press('Enter');
    await p.getByRole('button', { name: 'Later: place 3' }).press('Enter');
  },
  associate: async (p) => {
    for (const [a, b] of [
      ['Ebb', 'Falling'],
      ['Flood', 'Rising'],
    ] as const) {
      await p.getByLabel('The first of a pair').selectOption({ label: a });
      await p.getByLabel('The second of a pair').selectOption({ label: b });
      await p.getByRole('button', { name: 'Pair them' }).press('Enter');
    }
  },
  match: async (p) => {
    await p.getByLabel('Partner of Red over white').selectOption({ label: 'Fishing' });
    await p.getByLabel('Partner of White over red').selectOption({ label: 'Pilot' });
    await p.getByLabel('Partner of Red over red').selectOption({ label: 'Not under command' });
  },
  gapMatch: async (p) => {
    await p.getByLabel('Gap 1').selectOption({ label: 'two' });
    await p.getByLabel('Gap 2').selectOption({ label: 'three' });
  },
  inlineChoice: async (p) => void (await p.getByLabel('Your answer').selectOption({ label: 'isogonal' })),
  textEntry: (p) => p.getByLabel('Your answer').fill('42,5'),
  hottext: (p) => p.getByRole('button', { name: 'port', exact: true }).press('Enter'),
  hotspot: (p) => p.getByRole('button', { name: 'A: Entrance' }).press('Enter'),
  selectPoint: async (p) => {
    await p.getByLabel('across').fill('230');
    await p.getByLabel('down').fill('140');
  },
  graphicOrder: async (p) => {
    for (const name of ['C: Bank', 'B: Quay', 'A: Entrance'])
      await p.getByRole('button', { name }).press('Enter');
  },
  graphicAssociate: async (p) => {
    await p.getByLabel('The first of a pair').selectOption({ label: 'A: Entrance' });
    await p.getByLabel('The second of a pair').selectOption({ label: 'B: Quay' });
    await p.getByRole('button', { name: 'Pair them' }).press('Enter');
  },
  graphicGapMatch: async (p) => {
    await p.getByLabel('At Entrance').selectOption({ label: 'Bar' });
    await p.getByLabel('At Quay').selectOption({ label: 'Hard' });
  },
  positionObject: async (p) => {
    await p.getByLabel('across').fill('160');
    await p.getByLabel('down').fill('60');
  },
  slider: (p) => p.getByRole('slider', { name: 'Your answer' }).fill('208'),
  endAttempt: (p) => p.getByRole('button', { name: 'Show a hint' }).press('Enter'),
};

test('every kind is shown, answered by keyboard for full marks, and accessible', async ({ page }) => {
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'every-kind.zip' }).click();
  for (const [at, kind] of KINDS.entries()) {
    const article = page.getByRole('article', { name: `Item ${at + 1}`, exact: true });
    await page.getByRole('option').nth(at).click();
    await expect(article).toBeVisible();
    await expectAccessible(page, kind.kind);
    await article.getByRole('button', { name: 'Try it' }).click();
    await expectAccessible(page, `${kind.kind}, trying`);
    const answer = ANSWERS[kind.kind];
    if (!answer) continue;
    await answer(page);
    await article.getByRole('button', { name: 'Score it' }).click();
    await expect(article.getByText(`${kind.points} of ${kind.points} points`), kind.kind).toBeVisible();
  }
});

test('a place is pointed at with the mouse as well', async ({ page }) => {
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'every-kind.zip' }).click();
  await page.getByRole('option').nth(10).click();
  await page.getByRole('button', { name: 'Try it' }).click();
  await page
    .getByRole('article')
    .locator('img')
    .click({ position: { x: 232, y: 142 }, force: true });
  await page.getByRole('button', { name: 'Score it' }).click();
  await expect(page.getByText('2 of 2 points')).toBeVisible();
});

test('formulas are shown as mathematics, and nothing in them runs', async ({ page }) => {
  const xml = qti(
    '<item ident="tex"><presentation><material><mattext>Speed is \\(\\frac{D}{T}\\), and \\(\\href{javascript:alert(1)}{x}\\) is not.</mattext></material></presentation></item>',
  );
  await bring(page, 'formula.xml', new TextEncoder().encode(xml));
  await openBrought(page, 'formula.xml');
  await expect(page.locator('article math mfrac')).toHaveCount(1);
  await expect(page.locator('article a[href^="javascript"]')).toHaveCount(0);
});

test('a forecast that another choice overtakes is never shown as that of the other', async ({ page }) => {
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'midterm-export.zip' }).first().click();
  await page.getByRole('button', { name: 'Convert or send…' }).click();
  await page.waitForURL(/\/transfers\//u);
  const address = page.url().replace(/(\/transfers\/[\w-]+).*/u, '$1/forecast');
  const command = address.replace(/\/transfers\/([\w-]+)\/forecast/u, '/api/transfers/$1/do');
  for (const target of ['qti3.0', 'cc1.3']) {
    const data = { do: 'format', target };
    expect((await page.request.post(command, { headers: { Origin: base }, data })).ok()).toBe(true);
  }
  await page.goto(address);
  await expect(page.getByText('become fixed items, drawn with seed 1').first()).toBeVisible();
});

test('the forecast names what a format cannot carry, and a series is written where one file is not enough', async ({
  page,
}) => {
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'midterm-export.zip' }).first().click();
  await page.getByRole('button', { name: 'Convert or send…' }).click();
  await page.waitForURL(/\/transfers\//u);
  await page.getByRole('link', { name: 'Next: Forecast' }).click();
  await page.getByRole('radio', { name: /^Common Cartridge 1\.3/u }).check();
  await expect(page.getByText('become fixed items, drawn with seed 1').first()).toBeVisible();
  await expect(page.getByText(/cartridge holds one bank/u)).toBeVisible();
  await expectAccessible(page, 'forecast');
  await page.getByRole('radio', { name: /^QTI 3\.0/u }).check();
  await expect(page.getByRole('heading', { name: /Everything travels in QTI 3\.0/u })).toBeVisible();
  await page.getByRole('radio', { name: /^Common Cartridge 1\.3/u }).check();
  await expect(page.getByText('become fixed items, drawn with seed 1').first()).toBeVisible();
  await page.getByRole('link', { name: 'Next: Send' }).click();
  await page.getByRole('button', { name: 'Write the package' }).click();
  await expect(page.getByRole('heading', { name: /-1\.imscc/u })).toBeVisible();
  await expect(page.getByRole('link', { name: /-2\.imscc/u })).toBeVisible();
  await expectAccessible(page, 'send, a series');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: /-2\.imscc/u }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/-2\.imscc$/u);
});

test('a private field is confirmed once, holds for every package of its origin, and can be taken back', async ({
  page,
}) => {
  const field = (v: number): string =>
    `<qtimetadatafield><fieldlabel>x_worth</fieldlabel><fieldentry>${v}</fieldentry></qtimetadatafield>`;
  const xml = (id: string): Uint8Array =>
    new TextEncoder().encode(
      bankXml(
        id,
        LIGHTS_BANK.slice(0, 4).map((i) => ({ ...i, id: `${id}-${i.id}` })),
        PLAIN,
        id,
      ).replaceAll(/<qtimetadatafield><fieldlabel>qmd_weighting.*?<\/qtimetadatafield>/gu, field(7)),
    );
  await bring(page, 'private-one.xml', xml('one'));
  await bring(page, 'private-two.xml', xml('two'));
  await quiet(page);
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'private-one.xml' }).click();
  await page.getByRole('button', { name: /Noted on reading/u }).click();
  await expect(page.getByText('The field “x_worth” looks like points')).toBeVisible();
  await page.getByRole('button', { name: 'Read it as points' }).click();
  await expect(page.getByText('28 points').first()).toBeVisible();
  await quiet(page);
  await page.goto(`${base}/packages`);
  await expect(
    page.getByRole('row', { name: /private-two\.xml/u }).getByRole('cell', { name: '28', exact: true }),
  ).toBeVisible();
  await page.getByRole('link', { name: 'Reading rules' }).click();
  await expectAccessible(page, 'reading rules');
  const rules = (await (await page.request.get(`${base}/rules/rules.json`)).json()) as {
    rules: { label: string }[];
  };
  expect(rules.rules.map((r) => r.label)).toEqual(['x_worth']);
  await page.getByLabel('Name of the rule for x_worth').fill('Worth, in points');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.getByRole('button', { name: 'Remove the rule for x_worth' }).click();
  await expect(page.getByText('There are none yet. Where a field')).toBeVisible();
});
