import { expect, test, type Locator } from './support/test.ts';
import { bringExam, ended, onlyHabits, takeBack } from './support/courses.ts';
import { base, expectAccessible } from './support/page.ts';

/** Seen: it has a size on the page, and says this. */
async function says(what: Locator, text: RegExp): Promise<void> {
  await expect(what).toHaveText(text);
  const box = await what.boundingBox();
  expect(box!.width * box!.height).toBeGreaterThan(100);
}

test.afterEach(() => onlyHabits());

test('what was taken back is said in the list, on the strap, at the arrival and on the receipt', async ({
  page,
}) => {
  await onlyHabits();
  const id = await bringExam('k-tides-a26');
  await page.goto(`${base}/transfers/${id}/receipt`);
  await expect(page.getByTestId('receipt')).toContainText('Intact: everything arrived');
  await takeBack(id);
  await page.goto(`${base}/transfers/${id}/receipt`);
  await says(page.getByTestId('taken-back'), /^Undone, \d{4}-\d\d-\d\d \d\d:\d\d UTC, by\s+Nerea Sal\.$/u);
  await expect(page.getByTestId('receipt')).toContainText('Before that the check found it intact.');
  await expect(page.getByTestId('receipt')).not.toContainText('Intact: everything arrived');
  await expectAccessible(page, 'a receipt of what was taken back');
  await says(page.getByTestId('record'), /undone by Nerea Sal.*Final exam/su);
  const strap = page.getByRole('navigation', { name: 'Stages' });
  await expect(strap.getByRole('link', { name: /Arrival/u })).toContainText('undone');
  await page.goto(`${base}/transfers/${id}/arrival`);
  await says(
    page.getByTestId('taken-back'),
    /Undone\s.* by\s+Nerea Sal\.\s+What follows was found before that\./su,
  );
  await page.goto(`${base}/transfers`);
  await says(
    page.getByRole('row').filter({ has: page.locator(`a[href="/transfers/${id}"]`) }),
    /Removed again/u,
  );
  const json = await page.request.get(`${base}/transfers/${id}/receipt.json`);
  expect(await json.json()).toMatchObject({
    verdict: 'taken-back',
    foundBefore: 'intact',
    takenBack: { by: 'Nerea Sal' },
  });
  const csv = await page.request.get(`${base}/transfers/${id}/receipt.csv`);
  expect(await csv.text()).toMatch(/undone/u);
  const sheet = await (await page.request.get(`${base}/transfers/${id}/receipt.html`)).text();
  expect(sheet).toMatch(/Undone, .*by\s+Nerea Sal/su);
  expect(sheet).toContain('Before that the check found it intact.');
});

test('the receipt as a page of its own needs nothing from elsewhere, and has verdict, checksums and signature first', async ({
  page,
}) => {
  await onlyHabits('stripsFeedback');
  const id = await bringExam('k-tides-a26');
  const sheet = await (await page.request.get(`${base}/transfers/${id}/receipt.html`)).text();
  expect(sheet).not.toMatch(/<script|<link|<img|url\(|@import/u);
  await page.setContent(sheet);
  await expect(page).toHaveTitle(/, receipt$/u);
  const top = async (what: Locator): Promise<number> => (await what.boundingBox())!.y;
  const order = [
    page.getByText(/^Altered: everything arrived, some of it differs/u),
    page.getByText(/^From$/u),
    page.getByText(/^SHA-256 /u).first(),
    page.getByText('Totals', { exact: true }),
    page.getByText('Date and signature'),
    page.getByRole('heading', { name: 'Planned' }),
    page.getByRole('heading', { name: 'Differences' }),
    page.getByRole('heading', { name: 'Altered' }),
  ];
  const tops = await Promise.all(order.map(top));
  expect(tops).toEqual([...tops].sort((a, b) => a - b));
  await expectAccessible(page, 'a receipt as a page of its own');
});

test('looking again adds to the record; accepted differences are counted apart', async ({ page }) => {
  await onlyHabits('stripsFeedback');
  const id = await bringExam('k-tides-a26');
  await page.goto(`${base}/transfers/${id}/arrival`);
  const panel = page.getByRole('region', { name: 'Differences' });
  await panel.getByRole('button', { name: 'Accept…' }).first().click();
  await page.getByLabel('Why it is taken as it is').fill('Feedback is given in class.');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('verdict')).toContainText(/\d+ accepted, \d+ open\./u);
  await page.getByRole('button', { name: 'Check the course again' }).click();
  await expect(page.getByRole('button', { name: 'Check the course again' })).toBeEnabled();
  await ended(id);
  await page.goto(`${base}/transfers/${id}/receipt`);
  const record = page.getByTestId('record').getByRole('listitem');
  await expect(record).toHaveCount(2);
  await says(record.nth(1), /checked by Nerea Sal.*\d+ accepted, \d+ open/su);
  await expect(page.getByTestId('receipt')).toContainText('one package');
  await expect(page.getByTestId('receipt')).not.toContainText('not needed');
  await takeBack(id);
});
