import { expect, test, type Page } from '@playwright/test';
import { base, expectAccessible, transfer } from './support/page.ts';

const views: [name: string, path: () => string][] = [
  ['desk', () => '/'],
  ['packages', () => '/packages'],
  ['transfers', () => '/transfers'],
  ['search', () => '/find?q=twelfths'],
  ['search without a hit', () => '/find?q=zzzz'],
  ['no such page', () => '/nowhere'],
  ['courses', () => '/courses'],
  ['a search for a course', () => '/bring?q=tides'],
  ['systems', () => '/systems'],
  ['rubrics', () => '/rubrics'],
  ['a course', () => `/courses/${encodeURIComponent(process.env['ALFORJA_COURSE']!)}`],
  ...['contents', 'forecast', 'landing', 'send', 'arrival', 'receipt'].map(
    (stage): [string, () => string] => [
      `${stage} between courses`,
      () => `/transfers/${process.env['ALFORJA_COURSE_TRANSFER']!}/${stage}`,
    ],
  ),
  ...['source', 'contents', 'forecast', 'landing', 'send', 'arrival', 'receipt'].map(
    (stage): [string, () => string] => [stage, () => `/transfers/${transfer()}/${stage}`],
  ),
];

/** The theme is changed as people change it, without loading the page again. */
async function inDark(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Dark theme' }).click();
  await expect(page.getByRole('button', { name: 'Light theme' })).toBeVisible();
}

for (const [name, path] of views)
  test(`${name} has no accessibility violations, light or dark`, async ({ page }) => {
    await page.goto(base + path());
    await page.waitForLoadState('networkidle').catch(() => undefined);
    await expectAccessible(page, `${name}, light`);
    await inDark(page);
    await expectAccessible(page, `${name}, dark`);
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  });

for (const theme of ['light', 'dark'] as const)
  test(`the reading room has no accessibility violations (${theme})`, async ({ page }) => {
    await page.addInitScript((t) => localStorage.setItem('theme', t), theme);
    await page.goto(`${base}/packages`);
    for (const name of ['pilotage-week5.imscc', 'midterm-export.zip']) {
      await page.goto(`${base}/packages`);
      await page.getByRole('link', { name }).first().click();
      await expect(page.getByRole('article')).toBeVisible();
      await expectAccessible(page, name);
      await page.getByRole('button', { name: 'Try it' }).click();
      await expectAccessible(page, `${name}, trying`);
    }
    for (const place of ['To decide', 'Noted on reading']) {
      await page.getByRole('button', { name: new RegExp(place, 'u') }).click();
      await expectAccessible(page, place);
    }
  });

test('an unfolded difference, the keys and a filter have no accessibility violations', async ({ page }) => {
  await page.goto(`${base}/transfers/${transfer()}/arrival`);
  const list = page.getByRole('tree', { name: 'Items side by side' });
  await list.focus();
  await page.keyboard.press('n');
  await page.keyboard.press('n');
  await expect(page.getByText('tolerance changed').first()).toBeVisible();
  await expect(page.getByText('Answer 3.2: 3 points')).toBeVisible();
  await expectAccessible(page, 'unfolded');
  await page.getByRole('button', { name: /missing/u }).click();
  await expect(page.getByRole('treeitem')).toHaveCount(1);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toBeVisible();
  await expectAccessible(page, 'keys');
});

test('works at 1024 wide, and reading and arrival on a phone', async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  for (const path of [
    '/',
    '/packages',
    `/transfers/${transfer()}/contents`,
    `/transfers/${transfer()}/arrival`,
  ]) {
    await page.goto(base + path);
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth), path).toBe(
      true,
    );
  }
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${base}/transfers/${transfer()}/arrival`);
  await expect(page.getByTestId('verdict')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  await expectAccessible(page, 'arrival on a phone');
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'pilotage-week5.imscc' }).first().click();
  await expect(page.getByRole('article')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  await expectAccessible(page, 'reading on a phone');
});

test('the keyboard reaches everything in the list, the search and back', async ({ page }) => {
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'pilotage-week5.imscc' }).first().click();
  const list = page.getByRole('listbox', { name: 'Items' });
  await list.focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('article', { name: 'Item 2' })).toBeVisible();
  await page.keyboard.press('End');
  await expect(page.getByRole('article', { name: /Item 1[0-9]/u })).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('magnetic vari');
  await page.keyboard.press('Enter');
  await page
    .getByRole('link', { name: /Name the line/u })
    .first()
    .click();
  await expect(page.getByText('isogonal').first()).toBeVisible();
});
