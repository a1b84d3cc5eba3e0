import { readFile } from 'node:fs/promises';
import { expect, test, type Page } from './support/test.ts';
import { assessmentXml, CARTRIDGE } from '../../demo/qti12.ts';
import { TIDAL_EXAM } from '../../demo/items.ts';
import { onlyHabits } from './support/courses.ts';
import { base, bring, expectAccessible, openBrought } from './support/page.ts';

test.beforeEach(() => onlyHabits());

const notPlanned = (page: Page) => page.getByRole('region', { name: 'Differences' });
const quiz = (items: readonly (typeof TIDAL_EXAM)[number][]): string =>
  assessmentXml({ id: 'files-quiz', title: 'Morning quiz', items }, CARTRIDGE);

test('what comes back of a file is decided on like what landed in a course', async ({ page }) => {
  const six = TIDAL_EXAM.slice(0, 6);
  await bring(page, 'morning.xml', new TextEncoder().encode(quiz(six)));
  await openBrought(page, 'morning.xml');
  await page.getByRole('button', { name: 'Convert or send…' }).click();
  await page.waitForURL(/\/transfers\//u);
  await page.getByRole('link', { name: 'Landing' }).first().click();
  await page.getByLabel('Name of the quiz in the file').fill('Morning quiz, again');
  await page.getByLabel('Name of the quiz in the file').press('Tab');
  await expect(page.getByRole('button', { name: 'As in the source' })).toBeVisible();
  await expectAccessible(page, 'names in a file');
  await page.getByRole('link', { name: 'Next: Send' }).click();
  await page.getByRole('button', { name: 'Write the package' }).click();
  await expect(page.getByRole('link', { name: 'Download', exact: true })).toBeVisible();
  await expectAccessible(page, 'a file written');

  await page.getByRole('link', { name: 'Arrival' }).first().click();
  const back = quiz(six.slice(0, 5).map((i) => (i.id === 'tide-05' ? { ...i, points: 9 } : i)));
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'back.xml', mimeType: 'text/xml', buffer: Buffer.from(back) });
  await expect(page.getByTestId('verdict')).toHaveText('Not everything arrived.');
  await expect(notPlanned(page)).toContainText('planned points: ');
  await expect(notPlanned(page)).toContainText('Morning quiz, again, title');

  // One by one, with a reason; a group at once; and what is missing goes out once more, alone.
  const title = notPlanned(page).getByRole('listitem').filter({ hasText: ', title' });
  await title.getByRole('button', { name: 'Accept…' }).click();
  await title.getByLabel('Why it is taken as it is').fill('The old name stays.');
  await title.getByRole('button', { name: 'Accept', exact: true }).click();
  await expect(notPlanned(page)).toContainText('“The old name stays.”');
  await expectAccessible(page, 'a difference of a file accepted');
  const missing = notPlanned(page).getByRole('listitem').filter({ hasText: 'found missing' });
  await missing.getByRole('button', { name: 'Write again' }).click();
  await page.getByRole('link', { name: 'Send', exact: false }).first().click();
  await expect(page.getByRole('heading', { name: /Only what was missing or altered/u })).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .locator('section', { hasText: 'Only what was missing' })
      .getByRole('link', { name: /\.zip$/u })
      .last()
      .click(),
  ]);
  expect((await readFile(await download.path())).length).toBeGreaterThan(300);

  await page.getByRole('link', { name: 'Receipt' }).first().click();
  await expect(page.getByTestId('receipt')).toContainText('The old name stays.');
  await expect(page.getByTestId('receipt')).toContainText('1 accepted');
  await expectAccessible(page, 'the receipt of a file');
});

test('any part of a course is kept as a file, with a receipt', async ({ page }) => {
  await page.goto(`${base}/courses`);
  await page
    .getByRole('link', { name: /Tides and Tidal Streams/u })
    .filter({ hasText: '' })
    .first()
    .click();
  await page.goto(`${base}/bring?to=file&q=sprng%20tides`);
  await page.getByRole('button', { name: /NAV 205, section 01 Spring 2026 Quayside/u }).click();
  await page.getByRole('button', { name: 'Open and choose what to include' }).click();
  await page.waitForURL(/\/transfers\//u);
  await page.getByRole('button', { name: 'Nothing', exact: true }).click();
  await page.getByLabel('Quiz Final exam').check();
  await expect(page.getByText('39 of 45 items').first()).toBeVisible();
  await page.getByRole('link', { name: 'Next: Forecast' }).click();
  await page.getByRole('radio', { name: /^Common Cartridge 1\.3/u }).check();
  await page.getByRole('link', { name: 'Next: Send' }).click();
  await page.getByRole('button', { name: 'Write the package' }).click();
  await expect(page.getByRole('link', { name: 'Download', exact: true })).toBeVisible();
  await expect(page.getByText('Export from the course')).toBeVisible();
  const id = /transfers\/([\w-]+)/u.exec(page.url())![1]!;
  const receipt = (await (await page.request.get(`${base}/transfers/${id}/receipt.json`)).json()) as {
    way: { from: string; to: string | null; by: string };
    sent: { name: string };
  };
  expect(receipt.way.from).toContain('Tides and Tidal Streams (NAV 205)');
  expect([receipt.way.to, receipt.way.by]).toEqual([null, 'Nerea Sal']);
  expect(receipt.sent.name).toMatch(/\.imscc$/u);
});
