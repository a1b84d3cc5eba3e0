import { expect, test } from '@playwright/test';
import { base, bring, expectAccessible, quiet } from './support/page.ts';

test('a rubric from a spreadsheet is seen as graders see it, compared, and taken in every form', async ({ page }) => {
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
}); // prettier-ignore

test('a table that names no columns is refused in plain words', async ({ page }) => {
  await bring(page, 'notes.csv', new TextEncoder().encode('Our criteria;for the plan\nnice;short\n'));
  await quiet(page);
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'notes.csv' }).first().click();
  await page.getByRole('button', { name: /To decide/u }).click();
  await expect(page.getByText('No row names the columns of a rubric.')).toBeVisible();
});
