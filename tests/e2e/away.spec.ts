import { mkdtemp, rm } from 'node:fs/promises';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from './support/test.ts';
import { startServer } from '../../scripts/server.mjs';
import { base } from './support/page.ts';
import { stopped } from './support/process.ts';

test('while the server is away a banner says so, the page stays, and what was meant is done after', async ({
  page,
}) => {
  const data = await mkdtemp(join(tmpdir(), 'alforja-away-'));
  let { child } = await startServer({ port: 4187, data, quiet: true });
  try {
    await page.goto('http://127.0.0.1:4187/rubrics');
    await page.getByRole('button', { name: 'New rubric' }).click();
    const name = page.getByRole('textbox', { name: 'Name of the rubric' });
    await expect(name).toBeVisible();
    await expect(page.getByText('Saved', { exact: true })).toBeVisible();
    await stopped(child);
    await expect(page.getByTestId('away')).toBeVisible();
    expect((await page.getByTestId('away').boundingBox())!.height).toBeGreaterThan(20);
    await name.fill('Made while it was away');
    await name.press('Tab');
    await page.getByRole('link', { name: 'Packages' }).click();
    await expect(name).toHaveValue('Made while it was away');
    await expect(page.getByTestId('away')).toContainText('Then the page you chose opens.');
    ({ child } = await startServer({ port: 4187, data, quiet: true }));
    await expect(page.getByTestId('away')).toBeHidden();
    await expect(page.getByRole('heading', { name: 'Packages' })).toBeVisible();
    await page.goto('http://127.0.0.1:4187/rubrics');
    await expect(page.getByRole('link', { name: 'Made while it was away' })).toBeVisible();
  } finally {
    await stopped(child);
    await rm(data, { recursive: true, force: true });
  }
});

test('what was taken though its answer was lost is asked again, and done once', async ({ page }) => {
  await page.goto(`${base}/rubrics`);
  const mine = page.getByRole('link', { name: 'New rubric', exact: true });
  const before = await mine.count();
  const came: (string | undefined)[] = [];
  await page.route('**/api/rubrics', async (route) => {
    came.push((await route.request().allHeaders())['idempotency-key']);
    if (came.length > 1) return route.continue();
    expect((await route.fetch()).status()).toBe(200);
    await route.abort('connectionreset');
  });
  await page.getByRole('button', { name: 'New rubric' }).click();
  await expect(page.getByRole('textbox', { name: 'Name of the rubric' })).toBeVisible();
  expect(came).toHaveLength(2);
  expect(came[1]).toBe(came[0]);
  await page.goto(`${base}/rubrics`);
  await expect(mine).toHaveCount(before + 1);
});

test('news comes again by itself after whatever stood between has refused it', async ({ page }) => {
  const data = await mkdtemp(join(tmpdir(), 'alforja-away-'));
  let { child } = await startServer({ port: 4187, data, quiet: true });
  // What stands before a server that is away answers in its place: a browser gives the stream up then.
  const between = createServer((_, response) => response.writeHead(503).end('away'));
  const bring = (name: string): Promise<Response> =>
    fetch(`http://127.0.0.1:4187/api/packages?name=${name}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream', Origin: 'http://127.0.0.1:4187' },
      body: `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="${name}"/>`,
    });
  try {
    await page.goto('http://127.0.0.1:4187/packages');
    await bring('before.xml');
    await expect(page.getByRole('link', { name: 'before.xml' })).toBeVisible();
    await stopped(child);
    await new Promise<void>((done) => between.listen(4187, '127.0.0.1', done));
    await expect(page.getByTestId('away')).toBeVisible();
    // Long enough for the stream to be asked for, and refused.
    const refused = await page.waitForResponse((r) => r.status() === 503);
    expect(refused.url()).toContain('/api/');
    await expect(page.getByTestId('away')).toBeVisible();
    between.closeAllConnections();
    await new Promise((done) => between.close(done));
    ({ child } = await startServer({ port: 4187, data, quiet: true }));
    await expect(page.getByTestId('away')).toBeHidden();
    await bring('after.xml');
    await expect(page.getByRole('link', { name: 'after.xml' })).toBeVisible();
  } finally {
    between.close();
    await stopped(child);
    await rm(data, { recursive: true, force: true });
  }
});

test('a reading that came to nothing is done again by a button', async ({ page }) => {
  await page.goto(base);
  await page.locator('input[type=file]').setInputFiles({
    name: 'half.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from('PK\u0003\u0004half of a zip'),
  });
  await page.getByRole('link', { name: 'half.zip', exact: true }).first().click();
  await expect(page.getByText('The zip is incomplete.').first()).toBeVisible();
  const again = page.getByRole('button', { name: 'Read it again' });
  expect((await again.boundingBox())!.height).toBeGreaterThan(23);
  const read = page.waitForResponse((r) => r.url().endsWith('/reading'));
  await again.click();
  expect((await read).status()).toBe(200);
  await expect(page.getByText('The zip is incomplete.').first()).toBeVisible();
});

test('files that cannot be taken are refused in words before they are sent', async ({ page }) => {
  await page.goto(base);
  const sent: string[] = [];
  page.on('request', (r) => r.method() === 'POST' && sent.push(r.url()));
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'nothing.zip', mimeType: 'application/zip', buffer: Buffer.alloc(0) });
  await expect(page.getByText('nothing.zip is empty (0 bytes). Export or download it again.')).toBeVisible();
  // A file over the limit: only its size is looked at.
  await page.evaluate(() => {
    const file = new File(['x'], 'huge.zip');
    Object.defineProperty(file, 'size', { value: 900 * 1024 * 1024 });
    const data = { types: ['Files'], files: [file] };
    const event = new Event('drop', { bubbles: true, cancelable: true });
    Object.defineProperty(event, 'dataTransfer', { value: data });
    document.body.dispatchEvent(event);
  });
  await expect(page.getByText(/huge\.zip has 944 MB; files of up to 210 MB are taken/u)).toBeVisible();
  expect(sent.filter((url) => url.includes('/api/packages'))).toEqual([]);
  for (const [name, content, says] of [
    ['damaged.pdf', '%PDF-1.4\n%%EOF', 'The document is damaged or cut off'],
    ['cut.zip', 'PK\u0003\u0004half of it', 'The zip is incomplete.'],
  ] as const) {
    await page
      .locator('input[type=file]')
      .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(content) });
    await page.getByRole('link', { name, exact: true }).first().click();
    await expect(page.getByText(says).first()).toBeVisible();
    await page.goto(base);
  }
});

test('a file chosen before the page is up is not lost', async ({ page }) => {
  let ready = (): void => undefined;
  const scripts = new Promise<void>((resolve) => (ready = resolve));
  await page.route('**/_app/**/*.js', async (route) => {
    await scripts;
    await route.continue();
  });
  // Only what the server sent is there.
  const loading = page.goto(base);
  await page.locator('input[type=file]').setInputFiles({
    name: 'early.xml',
    mimeType: 'text/xml',
    buffer: Buffer.from(
      '<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="early"/>',
    ),
  });
  ready();
  await loading;
  await expect(page.getByRole('region', { name: 'Came in' })).toContainText('early.xml');
});
