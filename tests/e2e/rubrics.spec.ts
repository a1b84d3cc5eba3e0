import { expect, test } from './support/test.ts';
import ExcelJS from 'exceljs';
import { base, bring, expectAccessible, quiet } from './support/page.ts';

test('a rubric from a spreadsheet is seen as graders see it, compared, and taken in every form', async ({
  page,
}) => {
  await page.goto(`${base}/rubrics`);
  await page.locator('li', { hasText: 'passage-plan.csv' }).getByRole('link').click();
  const grid = page.getByRole('region', { name: 'The rubric' });
  await expect(grid).toContainText('4 to 5');
  await expect(grid).toContainText('16.5 points');
  await expectAccessible(page, 'a rubric');
  for (const to of ['case1.0', 'csv', 'xlsx', 'html']) {
    const link = page.locator(`a[href*="to=${to}"]`);
    const response = await page.request.get(base + (await link.getAttribute('href'))!);
    expect(response.ok(), to).toBe(true);
    // What was taken out is brought in again: the same rubric, whatever its form.
    if (to === 'html') continue;
    await bring(page, `again.${to}`, new Uint8Array(await response.body()));
    await quiet(page);
    await page.goto(`${base}/rubrics`);
    await page.locator('li', { hasText: 'passage-plan.csv' }).getByRole('link').click();
    await page.getByLabel('Compare with').selectOption({ label: `Passage plan (again.${to})` });
    await expect(page.getByTestId('rubric-seam')).toContainText('4 intact');
    await page.getByLabel('Compare with').selectOption({ label: 'none' });
  }
  await page.getByLabel('Compare with').selectOption({ label: 'Passage plan (passage-plan-came-back.json)' });
  await expect(page.getByTestId('rubric-seam')).toContainText('3 altered');
  await expect(page.getByTestId('effect')).toContainText('16.5 of 16.5 at the left, 17 of 17 at the right');
  await expectAccessible(page, 'two rubrics');
});

test('a table that names no columns is told so, and read once somebody has said what they are', async ({
  page,
}) => {
  const rows = [
    'Kriterium;Gewicht;voll;Punkte;halb;Punkte',
    'Kurse;2;jede Strecke;3;manche;1',
    'Gezeiten;1;ja;2;nein;0',
  ];
  const file = new TextEncoder().encode(rows.join('\n'));
  await bring(page, 'kurse.csv', file);
  await quiet(page);
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'kurse.csv' }).first().click();
  await expect(page.getByText('No row names the columns of a rubric.')).toBeVisible();
  await page.getByRole('link', { name: 'Say what its columns are…' }).click();
  // Guessed from what stands in them, and to be confirmed.
  await expect(page.getByText('There is no header; the columns were guessed')).toBeVisible();
  await expect(page.getByLabel('What column 2 says')).toHaveValue('weight');
  await expect(page.getByLabel('What column 4 says')).toHaveValue('points 1');
  await expectAccessible(page, 'a table');
  await page.getByLabel('What column 1 says').selectOption('skip');
  await expect(page.getByRole('alert')).toHaveText('Say which column names the criterion.');
  await page.getByLabel('What column 1 says').selectOption('criterion');
  await page.getByRole('button', { name: 'Keep this rubric' }).click();
  await page.getByRole('link', { name: 'kurse', exact: true }).click();
  await expect(page.getByRole('region', { name: 'The rubric' })).toContainText('8 points');
  // Another file with this header is read like that by itself.
  await bring(page, 'mehr.csv', new TextEncoder().encode(rows.slice(0, 2).join('\n')));
  await quiet(page);
  await page.goto(`${base}/rubrics`);
  await expect(page.locator('li', { hasText: 'mehr.csv' })).toContainText('1 criterion, 6 points');
});

test('each sheet of a workbook is looked at, the one that was not read first', async ({ page }) => {
  const book = new ExcelJS.Workbook();
  book.addWorksheet('Fixes').addRows([
    ['Criterion', 'Full', 'None'],
    ['Fix by two bearings', 4, 0],
  ]);
  book.addWorksheet('灯火').addRows([
    ['観点', 'A', 'B'],
    ['灯の見分け', 3, 1],
    ['記録', 2, 0],
  ]);
  await bring(page, 'two-sheets.xlsx', new Uint8Array(await book.xlsx.writeBuffer()));
  await quiet(page);
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'two-sheets.xlsx' }).first().click();
  await page.getByRole('link', { name: /columns/u }).click();
  const sheet = page.getByLabel('Sheet');
  await expect(sheet).toHaveValue('1');
  await expect(page.getByRole('cell', { name: '灯の見分け' })).toBeVisible();
  await sheet.selectOption('Fixes');
  await expect(page.getByRole('cell', { name: 'Fix by two bearings' })).toBeVisible();
  await sheet.selectOption('灯火');
  // Answers that come late undo nothing of what has been chosen meanwhile.
  await page.route('**/api/rubrics', async (route) => {
    await new Promise((later) => setTimeout(later, 400));
    await route.continue();
  });
  await page.getByLabel('The row of the header').selectOption('1');
  for (const [at, role] of ['criterion', 'named', 'named'].entries())
    await page.getByLabel(`What column ${at + 1} says`).selectOption(role);
  await expect(page.getByText('The columns are read as you say.')).toBeVisible();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.getByRole('button', { name: /^Keep/u }).click();
  await expect(page.getByRole('heading', { name: '2 rubrics' })).toBeVisible();
  await page.getByRole('link', { name: '灯火' }).click();
  await expect(page.getByRole('region', { name: 'The rubric' })).toContainText('5 points');
});

test('a table pasted from a word processor becomes a rubric, which is changed like a sheet', async ({
  page,
}) => {
  await page.goto(`${base}/rubrics`);
  const cell = (...lines: string[]): string => `<td>${lines.map((l) => `<p>${l}</p>`).join('')}</td>`;
  const html = `<table><tr><td>Criterion</td><td>Good (2)</td><td>Poor (0)</td></tr><tr>${cell('Fixes')}${cell('Three lines', 'that cut well')}${cell('None')}</tr><tr>${cell('潮汐')}${cell('時刻ごと')}${cell('なし')}</tr></table>`;
  // The page listens once it is up.
  await expect(async () => {
    await page.evaluate((markup) => {
      const data = new DataTransfer();
      data.setData('text/html', markup);
      data.setData('text/plain', 'as text');
      document.body.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      );
    }, html);
    await expect(page).toHaveURL(/\/rubrics\/table/u, { timeout: 500 });
  }).toPass();
  await page.getByRole('textbox', { name: 'Name' }).fill('Night passage');
  await page.getByRole('button', { name: 'Keep this rubric' }).click();
  const sheet = page.getByRole('grid', { name: 'The rubric, to be changed' });
  const cells = sheet.getByRole('gridcell');
  await expect(page.getByRole('textbox', { name: 'Name of the rubric' })).toHaveValue('Night passage');
  await expect(cells.nth(0)).toContainText('that cut well');
  await expect(page.getByText('4 points')).toBeVisible();
  await expectAccessible(page, 'a rubric being changed');
  // A cell is changed by keyboard: what cannot be read is said and keeps the cell open.
  await cells.nth(0).click();
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Points' }).fill('lots');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('A number, or a range such as “4 to 5”.');
  await page.getByRole('textbox', { name: 'Points' }).fill('3 to 5');
  await page.keyboard.press('Enter');
  await expect(page.getByText('7 points')).toBeVisible();
  // Duplicate, move, delete, and every step undone again.
  await page.keyboard.press('Control+d');
  await expect(sheet.getByRole('row')).toHaveCount(3);
  await page.keyboard.press('Alt+ArrowUp');
  await page.keyboard.press('Alt+ArrowRight');
  await page.keyboard.press('Control+Delete');
  await expect(sheet.getByRole('row')).toHaveCount(2);
  for (let n = 0; n < 4; n++) await page.keyboard.press('Control+z');
  await expect(sheet.getByRole('row')).toHaveCount(2);
  await expect(cells.nth(0)).toContainText('3 to 5');
  // A block from a spreadsheet fills cells from the cursor on, and makes the rows that are missing.
  await cells.nth(2).click();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', 'Every hour (4)\tNow and then (1)\nAlways\tNever\n');
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expect(sheet.getByRole('row')).toHaveCount(3);
  await expect(cells.nth(2)).toContainText('Every hour');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.reload();
  await expect(cells.nth(5)).toContainText('Never');
});

test('a copy is on its own; a follower shows what has changed, and takes it when asked', async ({ page }) => {
  await page.goto(`${base}/rubrics`);
  await page.locator('li', { hasText: 'passage-plan.csv' }).getByRole('link').click();
  await page.getByRole('button', { name: 'Copy, to change it' }).click();
  const name = page.getByRole('textbox', { name: 'Name of the rubric' });
  await name.fill('Passage plan, mine');
  await name.blur();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  const original = page.url();
  await page.getByRole('button', { name: 'Keep a linked copy' }).click();
  const how = page.getByRole('region', { name: 'How it follows' });
  await expect(how).toContainText('It is in step with “Passage plan, mine”');
  const follower = page.url();
  await page.goto(original);
  await page.getByRole('gridcell').first().click();
  await page.keyboard.press('Enter');
  await page.getByRole('textbox', { name: 'Points' }).fill('4');
  await page.keyboard.press('Enter');
  await expect(page.getByText('18.5 points')).toBeVisible();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.goto(`${base}/rubrics`);
  await expect(page.getByText('its original has changed')).toBeVisible();
  await page.goto(follower);
  await expect(how).toContainText('The original has changed');
  await expect(how.getByTestId('effect')).toContainText(
    '16.5 of 16.5 at the left, 18.5 of 18.5 at the right',
  );
  await expectAccessible(page, 'a follower');
  await how.getByRole('button', { name: 'Take the change over' }).click();
  await expect(page.getByRole('region', { name: 'The rubric' })).toContainText('18.5 points');
  await how.getByRole('button', { name: 'Make it independent' }).click();
  await expect(page.getByRole('grid', { name: 'The rubric, to be changed' })).toBeVisible();
  await expect(how).toHaveCount(0);
});

test('in a rubric typing replaces, Enter and F2 edit with the focus inside, Escape leaves, and no key is lost', async ({
  page,
}) => {
  await page.goto(`${base}/rubrics`);
  await page.getByRole('button', { name: 'New rubric' }).click();
  const sheet = page.getByRole('grid', { name: 'The rubric, to be changed' });
  const cell = sheet.getByRole('gridcell').first();
  await cell.click();
  await page.keyboard.type('Plots every fix');
  await expect(page.getByRole('textbox', { name: 'Name of the level' })).toHaveValue('Plots every fix');
  await page.keyboard.press('Enter');
  await expect(cell).toContainText('Plots every fix');
  await cell.click();
  await page.keyboard.press('F2');
  await expect(page.getByRole('textbox', { name: 'Name of the level' })).toBeFocused();
  await page.keyboard.press('End');
  await page.keyboard.type(' and names it');
  await page.keyboard.press('Escape');
  await expect(cell).toContainText('Plots every fix');
  await expect(cell).not.toContainText('names it');
  await expect(cell).toBeFocused();
  await page.keyboard.type('Again');
  await page.keyboard.press('Enter');
  await expect(cell).toContainText('Again');
  await expect(cell).not.toContainText('Plots');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('Escape');
});
