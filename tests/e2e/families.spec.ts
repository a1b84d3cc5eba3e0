import { expect, test } from './support/test.ts';
import { replicaPackage } from '../../demo/replicas.ts';
import { bring, expectAccessible, openBrought } from './support/page.ts';

/** Replicas of exercises: one row an exercise in the reading room, one line in the arrival check. */

test('21 replicas of 7 exercises are 7 rows; one of them with other numbers is one line, accepted as one', async ({
  page,
}) => {
  await bring(page, 'exercises-row.zip', replicaPackage(5));
  await openBrought(page, 'exercises-row.zip');
  await page.getByRole('button', { name: /^Families/u }).click();
  await expect(page.getByRole('heading', { name: '7 exercises, 3 replicas each' })).toBeVisible();
  const families = page.getByRole('region', { name: 'Families' });
  await expect(families.getByRole('listitem')).toHaveCount(7);
  await families.getByRole('button', { name: 'Exercise 3' }).click();
  await expect(families.getByText('The true course is').first()).toBeVisible();
  await expect(families.getByText('other numbers, choices')).toBeVisible();
  await expectAccessible(page, 'families of replicas');
  await families.getByText('The true course is').nth(1).click();
  await expect(page.getByRole('article')).toContainText('The true course is');

  await page.getByRole('button', { name: 'Convert or send…' }).click();
  await page.waitForURL(/\/transfers\//u);
  await page.getByRole('link', { name: 'Next: Forecast' }).click();
  await page.getByRole('link', { name: /^Send/u }).click();
  await page.getByRole('button', { name: /Write the package/u }).click();
  await expect(page.getByRole('link', { name: /Download/u }).first()).toBeVisible();
  await page
    .getByRole('link', { name: /Arrival/u })
    .first()
    .click();
  await page.locator('input[type=file]').setInputFiles({
    name: 'came-back.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from(replicaPackage(5, { reseeded: [2] })),
  });
  const differences = page.getByRole('region', { name: 'Differences' });
  await expect(differences).toContainText('1 difference to decide');
  await expect(differences).toContainText('Exercise 3 (3 replicas)');
  const seam = page.getByTestId('seam');
  await expect(seam.getByRole('treeitem').first()).toHaveAttribute('aria-setsize', '19');
  await expect(seam.getByRole('treeitem', { name: /Exercise 3: 3 replicas/u })).toBeVisible();
  await expectAccessible(page, 'an exercise with other numbers');
});
