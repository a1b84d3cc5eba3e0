import { unzipSync } from 'fflate';
import Papa from 'papaparse';
import { expect, test, type Locator, type Page } from './support/test.ts';
import { zip } from '../../demo/zip.ts';
import { harbourChart } from '../../demo/pictures.ts';
import { largePackage } from '../../demo/large.ts';
import { NO_KEY, NO_PICTURE, publisherBank } from '../../demo/publisher.ts';
import { bankXml, PLAIN } from '../../demo/qti12.ts';
import { LIGHTS_BANK } from '../../demo/items.ts';
import { THREE_LOSSES, THREE_QUIZ } from '../support/threeLosses.ts';
import { base, bring, expectAccessible, openBrought, taken } from './support/page.ts';

/** Putting right, by each of its editors. */

const layer = (page: Page): Locator => page.getByText(/^\d+ changes?$/u);
async function opened(page: Page, name: string, bytes: Uint8Array): Promise<string> {
  await bring(page, name, bytes);
  await openBrought(page, name);
  await expect(page.getByRole('listbox', { name: 'Items' })).toBeVisible();
  return new URL(page.url()).pathname;
}
const lights = (n: number): Uint8Array =>
  new TextEncoder().encode(`${bankXml(`lights-${n}`, LIGHTS_BANK, PLAIN, 'Lights')}<!-- ${n} -->`);

test('an item is changed where it stands: text, formula, picture, key, choices; undone, and as it came', async ({
  page,
}) => {
  await opened(page, 'change.xml', lights(1));
  await page.getByRole('option').nth(1).click();
  const article = page.getByRole('article');
  await page.getByRole('button', { name: 'Change it' }).click();
  const change = page.getByTestId('change');
  await expect(change).toBeVisible();
  await expectAccessible(page, 'an item while it is changed');

  // Text: typed at its end, with a formula that has a size and a picture that has one.
  const question = change.getByRole('textbox', { name: 'Question', exact: true });
  await question.locator('p').first().click();
  await page.keyboard.press('End');
  await page.keyboard.type(' At speed ');
  await change.getByRole('button', { name: 'Formula…' }).click();
  await page.getByLabel('As TeX').fill('\\frac{D}');
  await expect(page.getByTestId('formula-preview')).toContainText('expected');
  await page.getByLabel('As TeX').fill('\\frac{D}{T}');
  const preview = (await page.getByTestId('formula-preview').locator('mfrac').boundingBox())!;
  expect(preview.height).toBeGreaterThan(12);
  await page.getByRole('button', { name: 'Put it in' }).click();
  await expect(question.locator('mfrac')).toBeVisible();
  await change
    .getByLabel('Picture…')
    .setInputFiles({ name: 'Cartá ñ.png', mimeType: 'image/png', buffer: Buffer.from(harbourChart()) });
  await page.getByLabel(/^What it shows/u).fill('A harbour chart');
  await page.getByRole('button', { name: 'Put it in' }).click();
  const picture = question.getByRole('img', { name: 'A harbour chart' });
  await expect.poll(async () => (await picture.boundingBox())?.width ?? 0).toBeGreaterThan(50);

  // The key in the margin; the scoring in words follows at once.
  const second = change.getByRole('group', { name: 'Choice B' });
  const says = (await second.getByRole('textbox').textContent())!;
  await second.getByRole('radio').check();
  await expect(change.getByTestId('scoring-now').getByRole('rowheader').first()).toHaveText(says);
  await change.getByRole('button', { name: 'Add a choice' }).click();
  await expect(change.getByRole('radio')).toHaveCount(5);
  await change.getByRole('button', { name: 'Move B up' }).click();
  await expect(change.getByRole('group', { name: 'Choice A' }).getByRole('textbox')).toHaveText(says);
  await change.getByLabel('Points', { exact: true }).fill('3');
  await expect(change.getByTestId('scoring-now')).toContainText('3 points');
  await change.getByRole('button', { name: 'Done' }).click();

  await expect(change).toHaveCount(0);

  // As students see it from now on; the picture out of the package.
  await expect(article.locator('mfrac')).toBeVisible();
  await expect.poll(async () => (await article.locator('img').boundingBox())?.width ?? 0).toBeGreaterThan(50);
  await expect(article.getByText('changed', { exact: true })).toBeVisible();
  await expect(article.getByRole('heading', { level: 2 })).toContainText('3 points');
  await page.reload();
  await expect(page.getByRole('article').locator('mfrac')).toBeVisible();

  // A formula opens as it was typed, and is changed so.
  await page.getByRole('button', { name: 'Change it' }).click();
  await question.locator('math').dblclick();
  await expect(page.getByLabel('As TeX')).toHaveValue('\\frac{D}{T}');
  await page.getByLabel('As TeX').fill('\\sqrt{D}');
  await page.getByRole('button', { name: 'Put it in' }).click();
  await expect(question.locator('msqrt')).toBeVisible();
  await expect(question.locator('mfrac')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).focus();
  await expect(change.getByRole('status')).toHaveText('Kept');
  await page.locator('body').press('Control+z');
  await expect(question.locator('mfrac')).toBeVisible();

  // Undo takes back one step after the other; as it came takes all of them.
  await page.getByRole('button', { name: 'All of it as it came' }).click();
  await expect(page.getByText('As it came; nothing changed')).toBeVisible();
  await expect(page.getByTestId('change').locator('mfrac')).toHaveCount(0);
  await page.getByRole('button', { name: 'Done' }).click();
  await page.locator('body').press('Control+z');
  await expect(layer(page)).toBeVisible();
  await expect(page.getByRole('article').locator('mfrac')).toBeVisible();
});

test('what is typed key by key stays as typed, blanks too, in every text of a course', async ({ page }) => {
  // Texts without a paragraph around them, in lists, beside blanks, with pictures: as the demo's packages have them.
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'pilotage-week5.imscc' }).click();
  for (const n of [2, 3, 4, 8]) {
    await page.getByRole('option').nth(n).click();
    await page.getByRole('button', { name: 'Change it' }).click();
    const question = page.getByTestId('change').getByRole('textbox', { name: 'Question', exact: true });
    await question
      .locator('p')
      .first()
      .click({ position: { x: 2, y: 4 } });
    await page.keyboard.press('Home');
    await page.keyboard.type('Now and then: ');
    await expect(question).toContainText(/^Now and then: \S/u);
    await expect(page.getByTestId('change').getByRole('status')).toHaveText('Kept');
    await expect(page.getByText('taking it in…')).toHaveCount(0);
    // What was read anew leaves the cursor where it is.
    await page.keyboard.type('perhaps ');
    await expect(question).toContainText(/^Now and then: perhaps \S/u);
    await page.getByRole('button', { name: 'Done' }).click();
  }
  // How many steps it was depends on how quickly was typed.
  await expect(async () => {
    await page.locator('body').press('Control+z');
    await expect(page.getByText('As it came; nothing changed')).toBeVisible({ timeout: 1000 });
  }).toPass();
});

test('what cannot be done says why and loses nothing; a slot is not typed over; a word processor leaves no trace', async ({
  page,
}) => {
  await opened(page, 'refused.xml', lights(2));
  await page.getByRole('option').nth(1).click();
  await page.getByRole('button', { name: 'Change it' }).click();
  const change = page.getByTestId('change');
  const right = change.getByRole('group', { name: 'Choice A' });
  await right.getByRole('button', { name: 'Take out A' }).click();
  await expect(change.getByRole('alert')).toContainText('is the only right answer');
  await expect(change.getByRole('radio')).toHaveCount(4);
  // The choices are chosen as a whole, and typed over: they stay.
  const question = change.getByRole('textbox', { name: 'Question', exact: true });
  await question.getByText('the choices').click();
  await page.keyboard.type('x');
  await expect(question.getByText('the choices')).toBeVisible();
  await expect(change.getByText('What is answered stays in the text.')).toBeVisible();
  await question.locator('p').first().click();
  // The browser tells of the new place a moment later.
  await expect(question.locator('.ProseMirror-selectednode')).toHaveCount(0);
  await expect(question).toBeFocused();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData(
      'text/html',
      [
        '<html xmlns:o="urn:x"><body><!--StartFragment-->',
        '<p class="MsoNormal" style="color:red"><b>Pasted</b>',
        '<o:p></o:p><script>window.hurt=1</script></p><!--EndFragment--></body></html>',
      ].join(''),
    );
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expect(question.locator('b', { hasText: 'Pasted' })).toBeVisible();
  expect(await question.innerHTML()).not.toContain('Mso');
  await change.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('article').locator('b', { hasText: 'Pasted' })).toBeVisible();
  expect(await page.evaluate(() => 'hurt' in window)).toBe(false);
});

test('findings are put right one by one and all alike, seen before it is done', async ({ page }) => {
  const twice = LIGHTS_BANK.filter((i) => i.kind === 'single' && i.choices.length > 3)
    .slice(0, 5)
    .map((i) => {
      const choices = i.kind === 'single' ? i.choices : [];
      const [right, wrong] = [choices.find((c) => c.right)!, choices.find((c) => !c.right)!];
      return { ...i, choices: [right, wrong, { ...wrong }] } as (typeof LIGHTS_BANK)[number];
    });
  await bring(page, 'twice.xml', new TextEncoder().encode(bankXml('twice', twice, PLAIN, 'Twice')));
  await openBrought(page, 'twice.xml');
  await page.getByRole('button', { name: /^To decide/u }).click();
  const decide = page.getByRole('button', { name: /^To decide/u });
  const found = Number(await decide.locator('.num').textContent());
  const note = page.getByTestId('repair').filter({ hasText: 'take out the choice' }).first();
  await note.getByRole('button', { name: 'Put right', exact: true }).click();
  await expect(decide).toContainText(String(found - 1));
  await note.getByRole('button', { name: 'All 4 like this…' }).click();
  await expect(page.getByRole('list', { name: 'What will be done' }).getByRole('listitem')).toHaveCount(4);
  await expectAccessible(page, 'repairs before they are made');
  await page.getByRole('button', { name: 'Put all 4 right' }).click();
  await taken(page, 5);
  await expect(decide).toHaveCount(0);
  await page.getByRole('button', { name: 'What was changed' }).click();
  const history = page.getByRole('dialog');
  await expect(history.getByRole('listitem').filter({ hasText: '4 changes' })).toBeVisible();
  await expectAccessible(page, 'what was changed');
  await history.getByRole('button', { name: 'Take back' }).first().click();
  await expect(history.getByRole('button', { name: 'Bring back' })).toBeVisible();
  await page.keyboard.press('Escape');
  await taken(page, 1);
});

test('a publisher’s bank of 400 is weeded to 60 in the sheet, all at 2 points, and the receipt lists it', async ({
  page,
}) => {
  const path = await opened(page, 'publisher-bank.zip', publisherBank());
  await page.getByRole('link', { name: 'As a sheet' }).click();
  const grid = page.getByRole('grid', { name: 'Items as a sheet' });
  await expect(grid).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: '400 items' })).toBeVisible();
  await expectAccessible(page, 'the sheet');
  const from = Date.now();
  // Only two chapters are kept: what is not of them is left out, chapter by chapter.
  const leave = async (kind: string): Promise<void> => {
    await page.getByRole('combobox', { name: /^Kind/u }).selectOption({ label: kind });
    await page.getByRole('button', { name: /^Mark all/u }).click();
    await page.getByRole('button', { name: 'Leave out' }).click();
    await page.getByRole('button', { name: 'Clear', exact: true }).click();
  };
  await leave('number (80)');
  await leave('short answer (80)');
  await leave('several answers (80)');
  await expect(page.getByRole('status').filter({ hasText: '160 items' })).toBeVisible();
  // By hand: from the 61st on.
  await grid.focus();
  await page.keyboard.press('Control+Home');
  for (let n = 0; n < 4; n++) await page.keyboard.press('PageDown');
  await page.keyboard.press('Control+Shift+ArrowDown');
  await page.keyboard.press('Control+Delete');
  await expect(page.getByRole('status').filter({ hasText: '60 items' })).toBeVisible();
  // Points for all of them, by the column.
  await page.getByRole('columnheader', { name: 'Points' }).click();
  await page.keyboard.type('2');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('status').filter({ hasText: '120 points' })).toBeVisible();
  // The key that is missing, by its letter; one that names nothing says so.
  const cell = (number: number, column: string): Locator =>
    page
      .getByRole('row')
      .filter({ has: page.getByRole('rowheader', { name: String(number), exact: true }) })
      .getByRole('gridcell')
      .nth(['Title', 'Text', 'Kind', 'Category', 'Points', 'Choices', 'Key'].indexOf(column));
  await cell(NO_KEY + 1, 'Key').click();
  await page.keyboard.type('Q');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: '1 cell could not be changed' })).toBeVisible();
  await cell(NO_KEY + 1, 'Key').click();
  await page.keyboard.type('b');
  await page.keyboard.press('Enter');
  await expect(cell(NO_KEY + 1, 'Key')).toHaveText('B');
  await expect(page.getByText('taking it in…')).toHaveCount(0);
  // What is left to decide is repaired in the room: pictures that are not there, the draw.
  await page.getByRole('link', { name: 'Reading room' }).click();
  await page.getByRole('button', { name: /^To decide/u }).click();
  const missing = page
    .getByTestId('repair')
    .filter({ hasText: `fig-${NO_PICTURE[0] + 1}.png` })
    .first();
  if ((await missing.count()) > 0)
    await missing.getByRole('button', { name: 'Put right', exact: true }).click();
  expect(Date.now() - from, 'three minutes').toBeLessThan(180_000);

  await page.goto(`${base}${path}`);
  await page.getByRole('button', { name: 'Convert or send…' }).click();
  await page.getByRole('link', { name: /^Send/u }).click();
  await page.getByRole('button', { name: /^Write/u }).click();
  await expect(page.getByRole('link', { name: /Download/u }).first()).toBeVisible();
  await page.goto(page.url().replace(/\/send.*$/u, '/receipt'));
  const purpose = page.getByTestId('on-purpose');
  await expect(purpose).toContainText('Left out: 340');
  await expect(purpose).toContainText('worth 2 points');
});

test('texts are found and replaced over all items, each place seen; the sheet goes out and comes back', async ({
  page,
}) => {
  const path = await opened(page, 'replace.xml', lights(3));
  await page.goto(`${base}${path}/sheet`);
  await page.getByRole('grid').focus();
  await page.keyboard.press('Control+f');
  await page.getByLabel('Find', { exact: true }).fill('light');
  await page.getByLabel('Replace with').fill('lamp $1');
  await page.keyboard.press('Enter');
  const places = page.getByRole('list', { name: 'Places' }).getByRole('listitem');
  await expect(places.first()).toBeVisible();
  const count = await places.count();
  expect(count).toBeGreaterThan(3);
  await expectAccessible(page, 'find and replace');
  await places.first().getByRole('checkbox').uncheck();
  await page.getByRole('button', { name: `Replace ${count - 1}` }).click();
  await expect(page.getByText(`${count - 1} texts changed.`)).toBeVisible();
  await expect(page.getByRole('gridcell', { name: /lamp \$1/u }).first()).toBeVisible();

  // Out as CSV, one number changed in another program, and back.
  await page.getByRole('button', { name: 'As a workbook' }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save as CSV' }).click(),
  ]);
  const chunks: Buffer[] = [];
  for await (const chunk of await file.createReadStream()) chunks.push(chunk as Buffer);
  const { data } = Papa.parse<string[]>(Buffer.concat(chunks).toString('utf8'));
  const at = data[0]!.indexOf('Points');
  expect(data[1]![at]).toBe('2');
  data[1]![at] = '9';
  const back = Papa.unparse(data);
  await page
    .getByLabel('Take back a changed file…')
    .setInputFiles({ name: 'back.csv', mimeType: 'text/csv', buffer: Buffer.from(back) });
  await expect(page.getByText('1 cell in back.csv differ')).toBeVisible();
  await expectAccessible(page, 'a workbook that came back');
  await page.getByRole('button', { name: 'Take all 1' }).click();
  await expect(page.getByText('1 cell taken from back.csv.')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('gridcell', { name: '9', exact: true })).toHaveCount(0);
});

test('the keys go on when the row that was clicked has scrolled away', async ({ page }) => {
  await bring(page, 'scrolled.zip', largePackage(150));
  await openBrought(page, 'scrolled.zip');
  await page.getByRole('link', { name: 'As a sheet' }).click();
  const grid = page.getByRole('grid', { name: 'Items as a sheet' });
  await page.locator('#cell-0-3').click();
  for (let n = 0; n < 60; n++) await page.keyboard.press('ArrowDown');
  await expect(grid).toHaveAttribute('aria-activedescendant', 'cell-60-3');
  await expect(grid).toBeFocused();
  const box = (await page.locator('#cell-60-3').boundingBox())!;
  expect(box.height).toBeGreaterThan(20);
  await expect(page.locator('#cell-0-3')).toHaveCount(0);

  // Faster than the cell can be drawn: nothing of what is typed is lost.
  await page.getByRole('columnheader', { name: 'Points' }).click();
  await grid.evaluate((box) => {
    const press = (key: string, ctrlKey = false): unknown =>
      box.dispatchEvent(new KeyboardEvent('keydown', { key, ctrlKey, bubbles: true, cancelable: true }));
    press('2');
    press('5');
    press('Enter', true);
  });
  await expect(page.getByRole('status').filter({ hasText: '3,750 points' })).toBeVisible();
  await expect(page.getByText('taking it in…')).toHaveCount(0);
  await expect(page.getByRole('status').filter({ hasText: '3,750 points' })).toBeVisible();
});

test('a column that was copied elsewhere is pasted, and what does not fit is told', async ({ page }) => {
  const path = await opened(page, 'pasted.xml', lights(4));
  await page.goto(`${base}${path}/sheet`);
  await page.getByRole('columnheader', { name: 'Category' }).click();
  await expect(page.getByRole('grid')).toBeFocused();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', Array.from({ length: 15 }, (_, n) => `Группа ${n}`).join('\n'));
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expect(
    page.getByRole('status').filter({ hasText: '3 rows more than there are items' }),
  ).toBeVisible();
  await expect(page.getByRole('gridcell', { name: 'Группа 11' })).toBeVisible();
  await taken(page, LIGHTS_BANK.length);
  await page.getByRole('grid').press('Control+z');
  await expect(page.getByRole('gridcell', { name: 'Группа 11' })).toHaveCount(0);
});

test('a quiz and a bank are changed as a whole', async ({ page }) => {
  await bring(page, 'publisher-bank.zip', publisherBank());
  await openBrought(page, 'publisher-bank.zip');
  await page.getByRole('button', { name: /^Placement test/u }).click();
  await page.getByRole('button', { name: 'Change the quiz…' }).click();
  const panel = page.getByTestId('quiz-panel');
  await expectAccessible(page, 'a quiz while it is changed');
  await panel.getByLabel('Name').fill('Placement, autumn');
  await panel.getByLabel('Name').press('Tab');
  await expect(page.getByRole('button', { name: /^Placement, autumn/u })).toBeVisible();
  await panel.getByLabel('Minutes').fill('45');
  await panel.getByLabel('Minutes').press('Tab');
  await expect(page.getByText('45 minutes', { exact: false }).first()).toBeVisible();
  await panel.getByLabel('Minutes').fill('soon');
  await panel.getByLabel('Minutes').press('Tab');
  await expect(panel.getByRole('alert')).toContainText('“soon” is no number above 0.');
  await panel.getByLabel(/^How many are drawn/u).fill('12');
  await panel.getByLabel(/^How many are drawn/u).press('Tab');
  await expect(page.getByText(/draws 12 of \d+/u)).toBeVisible();
  await page.getByRole('button', { name: /^Coastal navigation/u }).click();
  await page.getByRole('button', { name: 'Change the bank…' }).click();
  await expectAccessible(page, 'a bank while it is changed');
  await page.getByRole('button', { name: 'One bank for each category' }).click();
  await expect(page.getByRole('button', { name: /^Coastal navigation.*Chapter 12/u })).toBeVisible();
});

test('some items of a bank get a bank of their own, chosen in the sheet', async ({ page }) => {
  const path = await opened(page, 'by-hand.xml', lights(7));
  await page.getByRole('button', { name: /^Lights/u }).click();
  await page.getByRole('button', { name: 'Change the bank…' }).click();
  await page.getByRole('link', { name: 'Choose some for a bank of their own, in the sheet' }).click();
  const marked = page.getByRole('group', { name: 'The marked rows' });
  const all = marked.getByRole('button', { name: /^Mark all/u });
  const newBank = async (name: string): Promise<void> => {
    await marked.getByRole('button', { name: 'New bank…' }).click();
    await marked.getByLabel('Name of the new bank').fill(name);
    await marked.getByLabel('Name of the new bank').press('Enter');
  };
  // All of them would leave nothing behind.
  await all.click();
  await newBank('Sectors');
  await expect(page.getByRole('alert')).toContainText('These are all the items of their bank');
  await page.getByLabel('Kind').selectOption({ index: 1 });
  await all.click();
  const some = Number(/\d+/u.exec(await all.innerText())![0]);
  await newBank('Sectors');
  await expect(marked.getByRole('status')).toContainText('in a bank of their own');
  await page.goto(path.startsWith('http') ? path : new URL(path, page.url()).href);
  await taken(page, 1);
  await expect(
    page.getByRole('button', { name: new RegExp(`^Sectors changed ${some}$`, 'u') }),
  ).toBeVisible();
});

test('three losses, three presses, none left; sent, and it arrives intact but for what was on purpose', async ({
  page,
}) => {
  await opened(page, 'three.zip', zip({ ...THREE_LOSSES, 'quiz.xml': THREE_QUIZ }));
  await page.getByRole('button', { name: 'Convert or send…' }).click();
  await page.getByRole('link', { name: /^Forecast/u }).click();
  await page.getByRole('radio', { name: /1\.3/u }).first().check();
  const heading = page.getByRole('heading', { name: /^3 losses in/u });
  await expect(heading).toBeVisible();
  await expectAccessible(page, 'a forecast with what avoids its losses');
  // What changes no scores is made at once; the others are asked about once more.
  const some = page.getByRole('heading', { name: /^\d loss/u });
  const none = page.getByRole('heading', { name: /^Everything travels/u });
  for (let left = 3; left > 0;) {
    await page.getByTestId('avoid').first().getByRole('button').first().click();
    const sure = page.getByRole('button', { name: 'Yes, change the scores' });
    if ((await sure.count()) > 0) await sure.click();
    const fewer = page.getByRole('heading', { name: new RegExp(`^[1-${Math.max(1, left - 1)}] loss`, 'u') });
    await expect(left > 1 ? none.or(fewer) : none).toBeVisible();
    left = (await none.count()) > 0 ? 0 : Number.parseInt((await some.textContent())!, 10);
  }
  await expect(page.getByRole('heading', { name: /^Everything travels/u })).toBeVisible();
  await page.getByRole('link', { name: /^Send/u }).click();
  await page.getByRole('button', { name: /^Write/u }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('link', { name: /Download/u })
      .first()
      .click(),
  ]);
  const chunks: Buffer[] = [];
  for await (const chunk of await file.createReadStream()) chunks.push(chunk as Buffer);
  const bytes = Buffer.concat(chunks);
  expect(Object.keys(unzipSync(bytes)).length).toBeGreaterThan(1);
  const address = page.url().replace(/\/send.*$/u, '');
  await page.goto(`${address}/arrival`);
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name: 'came-back.imscc', mimeType: 'application/octet-stream', buffer: bytes });
  await expect(page.getByTestId('verdict')).toHaveText('Everything arrived; nothing differs.');
  await expect(page.getByTestId('on-purpose')).toContainText('on purpose');
  await expectAccessible(page, 'an arrival with what was on purpose');
  await page.getByRole('button', { name: /on purpose/u }).click();
  const row = page.getByRole('treeitem').first();
  await row.click();
  await expect(page.getByTestId('purpose').first()).toBeVisible();
  await page.goto(`${address}/receipt`);
  await expect(page.getByTestId('on-purpose')).toContainText('Changed on purpose:');
  await expectAccessible(page, 'a receipt with what was on purpose');
});

test('what only a person can say is asked: which picture is meant, and what it shows', async ({ page }) => {
  const [first, second] = LIGHTS_BANK;
  const items = [
    { ...first!, stem: '<p><img src="images/buoy.png" alt="A buoy"> What is it?</p>' },
    { ...second!, stem: '<p><img src="images/chart.png"> And this?</p>' },
  ];
  const bytes = zip({
    'bank.xml': bankXml('asked', items, PLAIN, 'Asked'),
    'images/chart.png': harbourChart(),
  });
  await bring(page, 'asked.zip', bytes);
  await openBrought(page, 'asked.zip');
  await page.getByRole('button', { name: /^All items/u }).click();
  await page.getByRole('option').first().click();
  const file = { name: 'buoy.png', mimeType: 'image/png', buffer: Buffer.from(harbourChart(1)) };
  await page.getByLabel('Choose the file…').setInputFiles({ ...file, name: 'b.txt', mimeType: 'text/plain' });
  await expect(page.getByTestId('asked').getByRole('alert')).toContainText('is no picture');
  await page.getByLabel('Choose the file…').setInputFiles(file);
  const picture = page.getByRole('article').getByRole('img', { name: 'A buoy' });
  await expect.poll(async () => (await picture.boundingBox())?.width ?? 0).toBeGreaterThan(50);
  await expect(page.getByText('A file is not in the package')).toHaveCount(0);

  await page.getByRole('option').nth(1).click();
  await page.getByLabel('What the picture shows').fill('A chart of the harbour');
  await page.getByTestId('asked').getByRole('button', { name: 'Put right' }).click();
  await expect(page.getByRole('article').getByRole('img', { name: 'A chart of the harbour' })).toBeVisible();
  await expectAccessible(page, 'findings that ask');
});
