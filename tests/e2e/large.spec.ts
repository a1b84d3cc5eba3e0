import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from './support/test.ts';
import { LIGHTS_BANK } from '../../demo/items.ts';
import { largePackage } from '../../demo/large.ts';
import { bankXml, PLAIN } from '../../demo/qti12.ts';
import { until } from '../../demo/fill.ts';
import { startServer } from '../../scripts/server.mjs';
import { stopped } from './support/process.ts';
import { base, bring, openBrought, quiet } from './support/page.ts';

test('5,000 items scroll with few rows in the page', async ({ page }) => {
  await bring(page, 'large.zip', largePackage(5_000));
  await expect
    .poll(async () => (await page.request.get(`${base}/api/packages`)).text(), { timeout: 120_000 })
    .toContain('large.zip');
  await quiet(page);
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'large.zip' }).click();
  await page.getByRole('button', { name: /^All items/u }).click();
  const list = page.getByRole('listbox', { name: 'Items' });
  await expect(page.getByRole('option').first()).toBeVisible();
  expect(await page.getByRole('option').count()).toBeLessThan(60);
  await list.focus();
  await page.keyboard.press('End');
  await expect(page.getByRole('article', { name: 'Item 5000' })).toBeVisible();
  // The last row is whole in sight, with its name, which came only now.
  const last = page.getByRole('option', { name: /^5000/u });
  await expect(last).toContainText(/[a-z]{3}/u);
  await expect(last).toBeInViewport({ ratio: 1 });
  await page.keyboard.press('Home');
  await expect(page.getByRole('article', { name: 'Item 1', exact: true })).toBeVisible();
  await expect(page.getByRole('option', { selected: true })).toBeInViewport({ ratio: 1 });
  await page.keyboard.press('End');
  await expect(last).toBeInViewport({ ratio: 1 });
  // Fast scrolling: how long a frame takes is the browser's own measure of stutter. Which one is the slowest, others on
  // the machine decide.
  const middle = await list.evaluate(async (element) => {
    const frames: number[] = [];
    for (let at = 0; at < 60; at++) {
      element.scrollTop = (element.scrollHeight / 60) * at;
      const before = performance.now();
      await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)));
      frames.push(performance.now() - before);
    }
    return frames.sort((a, b) => a - b)[30]!;
  });
  expect(await page.getByRole('option').count()).toBeLessThan(60);
  expect(middle).toBeLessThan(500);
});

test('a reading is stopped by a word in sight, which says so, and is read again when asked for', async ({
  page,
}) => {
  await bring(page, 'stopped.zip', largePackage(6_000));
  const stop = page.getByRole('button', { name: /^Stop: Reading/u });
  await expect(stop).toHaveText('Stop');
  const box = (await stop.boundingBox())!;
  expect([box.width >= 24, box.height >= 24]).toEqual([true, true]);
  await stop.click();
  await expect(stop).toHaveCount(0);
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'stopped.zip' }).click();
  await expect(page.getByText('The reading was stopped by hand.')).toBeVisible();
  await page.getByRole('button', { name: 'Read it again' }).click();
  await expect(stop).toBeVisible();
  await quiet(page);
  await expect(page.getByRole('article', { name: 'Item 1', exact: true })).toBeVisible();
});

test('a file with hundreds of findings opens with the first of them, and says how many there are', async ({
  page,
}) => {
  const same = Array.from({ length: 450 }, (_, n) => ({
    ...LIGHTS_BANK[0]!,
    id: `same-${n}`,
    title: `Same ${n}`,
  }));
  await bring(page, 'same.xml', new TextEncoder().encode(bankXml('same', same, PLAIN, 'Same')));
  await openBrought(page, 'same.xml');
  const whole = page.waitForResponse((r) => r.url().endsWith('/room'));
  const sent = await (await page.request.get(page.url())).text();
  await page.reload();
  const { findings } = (await (await whole).json()) as {
    findings: { item: number | null; spoken: { severity: string } }[];
  };
  expect(findings.length).toBeGreaterThan(400);
  expect(sent.length).toBeLessThan(JSON.stringify(findings).length);
  const decide = findings.filter((f) => f.spoken.severity !== 'note');
  const row = page
    .getByRole('navigation', { name: 'Contents of the package' })
    .getByRole('button', { name: /^To decide/u });
  await expect(row).toContainText(String(decide.length));
  await row.click();
  const items = new Set(decide.map((f) => f.item)).size;
  const list = page.getByRole('region', { name: 'List of items' });
  await expect(list.getByRole('status')).toContainText(`${items} items`);
});

interface Listed {
  readonly name: string;
  readonly state: string;
  readonly summary: { readonly items: number } | null;
}

test('a process killed at any moment takes its work up again and shows nothing half', async () => {
  const data = await mkdtemp(join(tmpdir(), 'alforja-kill-'));
  const at = 'http://127.0.0.1:4189';
  const list = async (): Promise<Listed[]> => (await (await fetch(`${at}/api/packages`)).json()) as Listed[];
  const content = largePackage(3000);
  let { child } = await startServer({ port: 4189, data, quiet: true });
  try {
    await fetch(`${at}/api/packages?name=killed.zip`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/octet-stream', Origin: at },
      body: new Uint8Array(content),
    });
    for (const pause of [30, 400, 900, 1500]) {
      await new Promise((done) => setTimeout(done, pause));
      await stopped(child, 'SIGKILL');
      ({ child } = await startServer({ port: 4189, data, quiet: true }));
      for (const held of await list()) expect(held.state === 'ready' ? held.summary?.items : 3000).toBe(3000);
    }
    await until('reading', async () => (await list()).every((p) => p.state === 'ready'));
    expect((await list()).map((p) => [p.name, p.summary?.items])).toEqual([['killed.zip', 3000]]);
  } finally {
    await stopped(child);
    await rm(data, { recursive: true, force: true });
  }
});
