import { readFile } from 'node:fs/promises';
import { expect, test } from './support/test.ts';
import { demoFiles } from '../../demo/packages.ts';
import { assessmentXml, CARTRIDGE } from '../../demo/qti12.ts';
import { LIGHTS_BANK, TIDAL_EXAM } from '../../demo/items.ts';
import { base, bring, openBrought, quiet } from './support/page.ts';

test('drop, look, pick, download, bring back, read the verdict, keep the receipt', async ({ page }) => {
  const xml = assessmentXml(
    { id: 'e2e-quiz', title: 'Evening quiz', items: TIDAL_EXAM.slice(0, 6) },
    CARTRIDGE,
  );
  await bring(page, 'evening.xml', new TextEncoder().encode(xml));
  await openBrought(page, 'evening.xml');

  // See inside: the list, one item with its key, its scoring, its place and its XML.
  await expect(page.getByRole('option')).toHaveCount(6);
  await page.getByRole('option').nth(2).click();
  await expect(page.getByText('1 point for each of 2 right choices')).toBeVisible();
  await expect(page.getByText(/evening\.xml, line \d+/u)).toBeVisible();
  await page.getByRole('button', { name: 'XML' }).click();
  await expect(page.getByText('<item ident="tide-03"')).toBeVisible();

  // Try it as a student.
  await page.getByRole('button', { name: 'Try it' }).click();
  await page.getByLabel('White all-round light').check();
  await page.getByRole('button', { name: 'Score it' }).click();
  await expect(page.getByText('1 of 2 points')).toBeVisible();

  // Pick some of it.
  await page.getByRole('button', { name: 'Convert or send…' }).click();
  await page.waitForURL(/\/transfers\//u);
  const next = page.getByRole('link', { name: 'Next: Forecast' });
  const stood = await next.boundingBox();
  await page.getByRole('button', { name: 'Nothing', exact: true }).click();
  await expect(page.getByText('0 of 6 items').first()).toBeVisible();
  // Whoever is about to press it finds it where it was.
  expect(await next.boundingBox()).toEqual(stood);
  await page.getByRole('button', { name: /^Evening quiz/u }).click();
  await page.getByRole('checkbox', { name: /Spring tides/u }).check();
  await page.getByRole('checkbox', { name: /Low water is/u }).check();
  await expect(page.getByText('2 of 6 items').first()).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Not included' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('1 of 6 items').first()).toBeVisible();
  await page.getByRole('button', { name: 'Everything', exact: true }).click();
  await expect(page.getByText('6 of 6 items').first()).toBeVisible();

  // Write it, and take it away with its checksum.
  await next.click();
  await page.getByRole('radio', { name: /^QTI 2\.1/u }).check();
  await expect(page.getByRole('heading', { name: /Everything travels/u })).toBeVisible();
  await page.getByRole('link', { name: 'Next: Send' }).click();
  await page.getByRole('button', { name: /Write the package/u }).click();
  const link = page.getByRole('link', { name: /Download/u });
  await expect(link).toBeVisible();
  const [download] = await Promise.all([page.waitForEvent('download'), link.click()]);
  const written = await readFile(await download.path());
  const { createHash } = await import('node:crypto');
  await expect(page.getByText(createHash('sha256').update(written).digest('hex').slice(0, 12))).toBeVisible();

  // Bring the very same back: intact.
  await page
    .getByRole('link', { name: /Arrival/u })
    .first()
    .click();
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'came-back.zip', mimeType: 'application/zip', buffer: written });
  await expect(page.getByTestId('verdict')).toHaveText('Everything arrived; nothing differs.');

  // Bring something else back: what is missing and what is altered is named.
  await page.getByRole('button', { name: /Compare another export/u }).click();
  const altered = assessmentXml(
    {
      id: 'x',
      title: 'Evening quiz',
      items: TIDAL_EXAM.slice(0, 5).map((i) => (i.id === 'tide-05' ? { ...i, points: 9 } : i)),
    },
    CARTRIDGE,
  );
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'altered.xml', mimeType: 'text/xml', buffer: Buffer.from(altered) });
  await expect(page.getByTestId('verdict')).toHaveText('Not everything arrived.');
  await expect(page.getByRole('treeitem', { name: /^missing: / })).toHaveCount(1);
  const row = page.getByRole('treeitem', { name: /^altered: .*Name the line/u });
  await row.click();
  await expect(row.getByText('points changed').first()).toBeVisible();

  // The receipt states it, on the page and as JSON.
  await page.getByRole('link', { name: 'Receipt', exact: true }).click();
  await expect(page.getByText('incomplete').first()).toBeVisible();
  const receipt = (await (await page.request.get(`${page.url()}.json`)).json()) as {
    verdict: string;
    counts: Record<string, number>;
    sent: { sha256: string };
  };
  expect(receipt.verdict).toBe('incomplete');
  expect(receipt.counts['missing']).toBe(1);
  expect(receipt.sent.sha256).toBe(createHash('sha256').update(written).digest('hex'));
});

test('several files at once, anywhere on the page; the same bytes are recognised', async ({ page }) => {
  await page.goto(`${base}/transfers`);
  const files = [
    {
      name: 'one.xml',
      text: assessmentXml({ id: 'one', title: 'One', items: LIGHTS_BANK.slice(0, 2) }, CARTRIDGE),
    },
    {
      name: 'two.xml',
      text: assessmentXml({ id: 'two', title: 'Two', items: LIGHTS_BANK.slice(2, 5) }, CARTRIDGE),
    },
  ];
  const drop = async (list: typeof files): Promise<void> => {
    const data = await page.evaluateHandle((given) => {
      const transfer = new DataTransfer();
      for (const { name, text } of given) transfer.items.add(new File([text], name));
      return transfer;
    }, list);
    await page.dispatchEvent('body', 'dragenter', { dataTransfer: data });
    await expect(page.getByText('Drop to open; nothing is changed')).toBeVisible();
    await page.dispatchEvent('body', 'drop', { dataTransfer: data });
  };
  await drop(files);
  // Each is told for what it is; packages are no chapters, and open by themselves.
  await expect(page.getByRole('heading', { name: '2 files came in' })).toBeVisible();
  for (const name of ['one.xml', 'two.xml'])
    await expect(page.getByRole('row', { name: new RegExp(name, 'u') })).toContainText('QTI 1.2');
  await expect(page.getByText('Each of these opens by itself.')).toBeVisible();
  await quiet(page);
  await drop([{ ...files[0]!, name: 'copy of one.xml' }]);
  await expect(page.getByText(/You brought this in today .* as one\.xml/u)).toBeVisible();
});

test('a hostile archive is refused in plain words, and nothing is lost', async ({ page }) => {
  const { rawZip } = await import('../support/rawZip.ts');
  await bring(page, 'evil.zip', rawZip([{ name: '../../evil.sh', content: 'x' }]));
  await openBrought(page, 'evil.zip');
  await expect(page.getByText('could write outside its folder')).toBeVisible();
  await expect(page.getByText('The file is kept as it came')).toBeVisible();
});

test('a broken package is read as far as it can be, with file and line', async ({ page }) => {
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'chartwork-broken.zip' }).click();
  await page.getByRole('button', { name: /To decide/u }).click();
  await expect(page.getByText('The XML is not well-formed').first()).toBeVisible();
  await expect(page.getByText(/torn\.xml, line \d+/u).first()).toBeVisible();
});

test('stages open in any order and lose nothing', async ({ page }) => {
  const week = demoFiles().find((f) => f.name === 'buoyage-unit2.imscc')!;
  await bring(page, week.name, week.bytes);
  await page.getByRole('link', { name: 'Open it' }).click();
  await page.getByRole('button', { name: 'Convert or send…' }).click();
  await page.waitForURL(/\/transfers\//u);
  await page.getByRole('button', { name: 'Rename' }).click();
  await page.getByLabel('Name of the transfer').fill('Buoys, to section B');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('checkbox', { name: /Buoy drill/u }).uncheck();
  for (const stage of ['Receipt', 'Arrival', 'Send', 'Source', 'Contents']) {
    await page
      .getByRole('link', { name: new RegExp(stage, 'u') })
      .first()
      .click();
    await expect(page.getByRole('heading', { name: 'Buoys, to section B' })).toBeVisible();
  }
  await expect(page.getByRole('checkbox', { name: /Buoy drill/u })).not.toBeChecked();
  await expect(page.getByRole('checkbox', { name: /Lights exam/u }).first()).toBeChecked();
});
