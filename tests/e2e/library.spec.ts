import { expect, test } from './support/test.ts';
import { heldBy, onlyHabits, takeBack } from './support/courses.ts';
import { base, expectAccessible } from './support/page.ts';

test.beforeEach(() => onlyHabits());

test('a book of a publisher’s library: its links tested, its twelve banks in one course at once', async ({
  page,
}) => {
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'Publishers’ libraries' }).click();
  await page.getByRole('link', { name: 'Lantern & Lead Press' }).click();
  // By a word of a chapter, then by nothing.
  await page.getByLabel('Find in the library').fill('no such word');
  await page.getByRole('button', { name: 'Search' }).last().click();
  await expect(page.getByText('No matches for “no such word”')).toBeVisible();
  await page.getByLabel('Find in the library').fill('');
  await page.getByRole('button', { name: 'Search' }).last().click();
  await page.getByRole('link', { name: /Coastal pilotage 2nd edition/u }).click();
  await expect(page.getByRole('button', { name: 'Bring test banks into a course…' })).toBeDisabled();
  await page.getByRole('button', { name: 'Test all links' }).click();
  const results = page.getByTestId('link-result');
  await expect(results).toHaveCount(25);
  await expect(page.getByText('not found (404)')).toHaveCount(1);
  await expect(results.filter({ hasText: '/archive/3' })).toContainText('opens · redirected to');
  await expect(results.filter({ hasText: 'answers; opens from a course' })).toHaveCount(12);
  for (const result of [results.first(), results.last()])
    await expect.poll(async () => (await result.boundingBox())?.height ?? 0).toBeGreaterThan(10);
  await expectAccessible(page, 'a book with its links tested');
  await page.getByLabel('All test banks').check();
  await page.getByRole('button', { name: 'Bring 12 test banks into a course…' }).click();
  await expect(page).toHaveURL(/\/bring\?package=/u);
  await page.getByLabel('Find the destination').fill('tidal autumn 01 quay');
  await page.getByRole('button', { name: /NAV 205, section 01 Autumn 2026 Quayside/u }).click();
  await page.getByRole('button', { name: 'Open and choose what to include' }).click();
  await expect(page.getByText('154 of 154 items').first()).toBeVisible();
  await expect(page.getByText('12 of 12, 154 items')).toBeVisible();
});

test('links of a book land hidden in a section of a course, and are tested in the package too', async ({
  page,
}) => {
  await page.goto(`${base}/libraries`);
  await page.getByRole('link', { name: 'Lantern & Lead Press' }).click();
  await page.getByRole('link', { name: /Coastal pilotage 3rd edition/u }).click();
  await page.getByLabel('Chapter 7 to read web link').check();
  await page.getByLabel('Drills of chapter 7 LTI link').check();
  await page.getByRole('button', { name: 'Put 2 links into a course…' }).click();
  await page.getByLabel('Find the destination').fill('tidal autumn 01 quay');
  await page.getByRole('button', { name: /NAV 205, section 01 Autumn 2026 Quayside/u }).click();
  const made = new URL(page.url()).searchParams.get('package')!;
  await page.getByRole('button', { name: 'Open and choose what to include' }).click();
  await page.getByRole('link', { name: 'Next: Forecast' }).click();
  await page.getByRole('link', { name: 'Next: Landing' }).click();
  for (const n of [0, 1]) {
    await page
      .getByLabel(/^Section of/u)
      .nth(n)
      .selectOption({ index: 1 });
    await page.getByLabel('hidden').nth(n).check();
  }
  await page.getByRole('link', { name: 'Next: Send' }).click();
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('link', { name: 'See what arrived' }).click();
  const held = (await heldBy('k-tides-a26')).filter((t) => t.kind === 'link').map((t) => t.title);
  expect(held).toContain('Chapter 7 to read: Heights of tide');
  expect(held).toContain('Drills of chapter 7: Heights of tide');
  await takeBack(/transfers\/([\w-]+)/u.exec(page.url())![1]!);
  await page.goto(`${base}/packages/${made}?in=links`);
  await page.getByRole('button', { name: 'Test whether they open' }).click();
  await expect(page.getByTestId('link-result')).toHaveText([/opens/u, /opens from a course/u]);
  await expectAccessible(page, 'links of a package, tested');
});

test('a library that is none says so, and is not kept', async ({ page }) => {
  await page.goto(`${base}/libraries`);
  await page.getByLabel('Address').fill(`${base}/nothing-here`);
  await page.getByLabel('Token').fill('any');
  await page.getByRole('button', { name: 'Connect', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('refused for its resources');
  await expect(page.getByRole('button', { name: /^Disconnect/u })).toHaveCount(1);
});
