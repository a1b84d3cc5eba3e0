import type { Page, Response } from '@playwright/test';
import { largeItems, largeRound } from '../../demo/large.ts';
import { bankXml, PLAIN } from '../../demo/qti12.ts';
import { expect, test } from './support/test.ts';
import { base, bring, expectAccessible, openBrought, quiet } from './support/page.ts';

/** What no page and no answer of a transfer is larger than, however many items it has, in bytes. */
const MOST = 300_000;

/** Keeps the sizes of what the pages of a transfer get. */
function weighed(page: Page): { readonly heavy: string[] } {
  const heavy: string[] = [];
  const weigh = async (response: Response): Promise<void> => {
    if (!/\/transfers\//u.test(response.url()) || /\/package|receipt\./u.test(response.url())) return;
    const body = await response.body().catch(() => null);
    if (body && body.length > MOST) heavy.push(`${response.url()}: ${body.length}`);
  };
  page.on('response', (response) => void weigh(response));
  return { heavy };
}

test('3,000 items make the round in pages of bounded size, and every row can be reached', async ({
  page,
}) => {
  const { heavy } = weighed(page);
  const { there, back, truth } = largeRound(3000);
  await bring(page, 'round.zip', there);
  await quiet(page);
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'round.zip' }).click();
  await page.getByRole('button', { name: 'Convert or send…' }).click();
  await page.waitForURL(/\/transfers\//u);

  // Items come a hundred at a time, and what is looked for is found among all.
  await page.getByRole('button', { name: /^Bank 2\b/u }).click();
  const included = page.getByText('included with Bank 2');
  await expect(included).toHaveCount(100);
  await page.getByRole('button', { name: 'Show more' }).click();
  await expect(included).toHaveCount(200);
  await page.getByRole('searchbox', { name: 'Filter this list' }).fill('2718. When');
  await expect(page.getByRole('checkbox', { name: /^2718\. When/u })).toBeVisible();
  await expect(page.getByRole('checkbox', { name: /^Bank /u })).toHaveCount(1);
  await page.getByRole('searchbox', { name: 'Filter this list' }).fill('');
  await expect(page.getByRole('checkbox', { name: /^Bank /u })).toHaveCount(6);
  await page.getByRole('checkbox', { name: 'Bank Bank 3', exact: true }).uncheck();
  await expect(page.getByText('2,500 of 3,000 items').first()).toBeVisible();
  await expect(page.getByText('500 items', { exact: true })).toBeVisible();
  await page.getByRole('checkbox', { name: 'Bank Bank 3', exact: true }).check();
  await expect(page.getByText('3,000 of 3,000 items').first()).toBeVisible();

  await page.getByRole('link', { name: 'Next: Forecast' }).click();
  await expect(page.getByRole('heading', { name: /Everything travels/u })).toBeVisible({ timeout: 60_000 });
  await page.getByRole('link', { name: 'Next: Send' }).click();
  await page.getByRole('button', { name: /Write the package/u }).click();
  await expect(page.getByRole('link', { name: /Download/u })).toBeVisible({ timeout: 90_000 });
  await page
    .getByRole('link', { name: /Arrival/u })
    .first()
    .click();
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'round-back.zip', mimeType: 'application/zip', buffer: Buffer.from(back) });
  await expect(page.getByTestId('verdict')).toHaveText('Not everything arrived.', { timeout: 90_000 });

  // Rows come as they are looked at: the last, the next that differs, and those of one sort alone.
  const tree = page.getByRole('tree', { name: 'Items side by side' });
  await expect(page.getByRole('treeitem').first()).toHaveAttribute('aria-setsize', '3000');
  await tree.focus();
  await page.keyboard.press('End');
  const last = page.locator('#seam-2999');
  await expect(last).toContainText('Exercise 3000');
  await expect(last).toBeInViewport();
  // Its number stands beside the picture of its kind, not under it.
  const number = await last
    .getByTestId('number')
    .first()
    .evaluate((cell) => {
      const words = document.createRange();
      words.selectNodeContents(cell);
      return words.getBoundingClientRect().right - cell.nextElementSibling!.getBoundingClientRect().left;
    });
  expect(number).toBeLessThan(0);
  await page.keyboard.press('Home');
  await page.keyboard.press('n');
  const first = page.locator('#seam-7');
  await expect(first.getByText('points changed').first()).toBeVisible();
  await expect(first).toContainText('Exercise 8');
  await expectAccessible(page, 'an arrival of many');
  const counts = page.getByRole('group', { name: 'Show only' });
  await counts.getByRole('button', { name: /missing/u }).click();
  await expect(page.getByRole('treeitem')).toHaveCount(truth.counts.missing);
  await expect(page.getByRole('treeitem', { name: /^missing: .*Exercise 2000/u })).toBeVisible();
  await counts.getByRole('button', { name: /missing/u }).click();

  // All of a sort are accepted at once, and told apart from then on.
  const sort = page.getByRole('listitem').filter({ hasText: 'points changed: 60 questions' });
  await sort.getByRole('button', { name: /^Accept/u }).click();
  await page.getByLabel('Why it is taken as it is').fill('Worth more this year.');
  await page.keyboard.press('Enter');
  await expect(counts.getByRole('button', { name: /60\s+accepted/u })).toBeVisible();
  await expect(page.getByTestId('verdict')).toContainText('60 accepted');

  await page.getByRole('link', { name: 'Receipt', exact: true }).click();
  await expect(page.getByTestId('receipt')).toContainText('60 accepted');
  const receipt = (await (await page.request.get(`${page.url()}.json`)).json()) as {
    counts: Record<string, number>;
    missing: { id: string }[];
    altered: { source: string }[];
  };
  expect(receipt.counts).toEqual({ intact: 2937, ...truth.counts });
  const said = [...receipt.missing.map((m) => m.id), ...receipt.altered.map((a) => a.source)];
  expect(said.sort()).toEqual([...truth.ids].sort());
  expect(heavy).toEqual([]);
});

test('items in no quiz and no bank are ticked all at once, and left out one by one', async ({ page }) => {
  const items = bankXml('loose', largeItems(130, 3), PLAIN, '')
    .replace(/<objectbank[^>]*>/u, '')
    .replace('</objectbank>', '');
  await bring(page, 'loose.xml', new TextEncoder().encode(items));
  await openBrought(page, 'loose.xml');
  await page.getByRole('button', { name: 'Convert or send…' }).click();
  await page.waitForURL(/\/transfers\//u);
  const all = page.getByRole('checkbox', { name: 'All that is in no quiz or bank' });
  await expect(all).toBeChecked();
  await expect(page.getByText('130 of 130 items').first()).toBeVisible();
  const one = page.getByRole('checkbox', { name: /^2\. When/u });
  await one.uncheck();
  await expect(page.getByText('129 of 130 items').first()).toBeVisible();
  expect(await all.evaluate((box: HTMLInputElement) => box.indeterminate)).toBe(true);
  await page.reload();
  await expect(one).not.toBeChecked();
  await expectAccessible(page, 'items in no quiz and no bank');
  await all.click();
  await expect(page.getByText('130 of 130 items').first()).toBeVisible();
  await expect(one).toBeChecked();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('129 of 130 items').first()).toBeVisible();
  await page.getByRole('button', { name: 'Nothing', exact: true }).click();
  await one.check();
  await expect(page.getByText('1 of 130 items').first()).toBeVisible();
});
