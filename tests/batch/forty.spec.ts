import { expect, test } from '../e2e/support/test.ts';
import { base, expectAccessible } from '../e2e/support/page.ts';

test('forty courses with 12,000 questions go as one batch, the troubled ones first', async ({ page }) => {
  test.setTimeout(900_000);
  await page.goto(`${base}/batches/new?from=Spring%202026&to=Autumn%202026`);
  await expectAccessible(page, 'a new batch');
  for (const name of ['NAV 205 Tides', 'NAV 101 Coastal', 'PIL 301 Pilotage'])
    await page.getByLabel(new RegExp(`^What comes from ${name}`, 'u')).selectOption('none');
  await page.getByRole('button', { name: 'Bring 40 courses' }).click();
  await page.waitForURL(/batches\/[0-9a-f]/u);
  // The page is left, and come back to once all is done.
  const address = page.url();
  const batch = address.replace('/batches/', '/api/batches/');
  await page.goto('about:blank');
  const waiting = async (): Promise<number> =>
    ((await (await fetch(batch)).json()) as { rows: { state: string }[] }).rows.filter(
      (r) => r.state === 'waiting' || r.state === 'running',
    ).length;
  await expect.poll(waiting, { timeout: 800_000, intervals: [1000] }).toBe(0);
  await page.goto(address);
  await expect(page.getByTestId('batch-state')).toContainText('40 of 40 courses arrived');
  await expect(page.getByTestId('batch-state')).toContainText(
    '12,000 questions intact, 0 altered, 0 missing',
  );
  await expect(page.getByRole('img', { name: /12000 intact/u })).toBeVisible();
  await expectAccessible(page, 'a batch');
  await page.getByRole('link', { name: /: PRG 200/u }).click();
  await expect(page.getByTestId('verdict')).toHaveText(/nothing differs/u);
});
