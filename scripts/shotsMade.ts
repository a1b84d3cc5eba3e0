import type { Page } from '@playwright/test';

/** What pictures show of quizzes and banks that are made here, done as a user does it. */

async function openBank(page: Page, name: string): Promise<void> {
  const banks = page.getByLabel('Take from');
  await banks.selectOption(await banks.locator('option', { hasText: name }).first().getAttribute('value'));
  await page.waitForTimeout(500);
}

/** A quiz half made: a draw of one chapter, three questions of another, and what is wrong with it so far. */
export async function makeQuiz(page: Page, base: string): Promise<void> {
  await page.goto(`${base}/quizzes`);
  await page.getByLabel('Name of the new quiz').fill('Midterm: marks and tides');
  await page.getByRole('button', { name: 'New quiz' }).click();
  await page.waitForURL(/\/quizzes\/./u);
  await openBank(page, 'Ch. 2 Buoys and marks');
  await page.getByRole('button', { name: /^Draw from all/u }).click();
  await openBank(page, 'Ch. 5 Tides');
  const list = page.getByRole('listbox', { name: 'Questions of the bank' });
  await list.getByText('High water 5.2 m').waitFor();
  await list.focus();
  for (let n = 0; n < 3; n++) {
    await list.press('Space');
    await list.press('ArrowDown');
    await list.press('ArrowDown');
  }
  await list.press('Enter');
  await page.getByTestId('totals').getByText('13 questions').waitFor();
  await page.evaluate(() => window.scrollTo(0, 0));
  await page.waitForTimeout(600);
}

/** A bank of one's own out of two chapters. */
export async function makeBank(page: Page, base: string): Promise<void> {
  await page.goto(`${base}/banks`);
  await page.getByRole('checkbox', { name: /Ch\. 2 Buoys/u }).check();
  await page.getByRole('checkbox', { name: /Ch\. 5 Tides/u }).check();
  await page.getByLabel('Name of the new bank').fill('Best of both chapters');
  await page.getByRole('button', { name: /^Merge 2/u }).click();
  await page.waitForURL(/\/banks\/./u);
  await page.getByText('nearly the same').waitFor();
  await page.waitForTimeout(600);
}
