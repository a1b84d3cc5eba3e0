import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { bring, until } from '../demo/fill.ts';
import { largePackage } from '../demo/large.ts';
import { startServer } from '../scripts/server.mjs';

/**
 * What a key costs in the sheet of items until it has been painted, against the raw cost of a frame in which nothing
 * happens, on the same page: 1 is within one frame, 2 is a frame late. npm run bench:sheet [-- SIZES…]
 */
const given = process.argv.slice(2).map(Number).filter(Number.isInteger);
const sizes = given.length > 0 ? given : [1000, 10_000];

interface Cost {
  /** Until what it changed has been painted, from one frame on; milliseconds. */
  readonly painted: number;
  readonly slowest: number;
  /** Its own work: handling, drawing anew and laying out; milliseconds. */
  readonly work: number;
}

/** Presses a key again and again where the focus is; no key at all for the raw cost. */
async function pressed(page: Page, key: string, times: number): Promise<Cost> {
  // Running from source names functions by a helper that a page does not have.
  await page.evaluate('globalThis.__name ??= (f) => f');
  return page.evaluate(
    async ([k, n]) => {
      const painted = (): Promise<void> =>
        new Promise((done) =>
          requestAnimationFrame(() => {
            const channel = new MessageChannel();
            channel.port1.onmessage = () => done();
            channel.port2.postMessage(0);
          }),
        );
      const middle = (of: number[]): number => of.sort((a, b) => a - b)[Math.floor(of.length / 2)]!;
      const took: number[] = [];
      const worked: number[] = [];
      for (let i = 0; i < n; i++) {
        await painted();
        const from = performance.now();
        const box = document.activeElement!;
        if (k !== '')
          box.dispatchEvent(new KeyboardEvent('keydown', { key: k, bubbles: true, cancelable: true }));
        if (box instanceof HTMLTextAreaElement && k.length === 1) {
          box.value += k;
          box.dispatchEvent(new InputEvent('input', { bubbles: true }));
        }
        // What is drawn anew is drawn in microtasks.
        for (let turn = 0; turn < 5; turn++) await Promise.resolve();
        document.body.getBoundingClientRect();
        worked.push(performance.now() - from);
        await painted();
        took.push(performance.now() - from);
      }
      return { painted: middle(took), slowest: Math.max(...took), work: middle(worked) };
    },
    [key, times] as const,
  );
}

/** Brings a package in, opens it as a sheet, and stands in a cell of it. */
async function openSheet(page: Page, base: string, items: number): Promise<void> {
  const { id } = await bring(base, `sheet-${items}.zip`, largePackage(items));
  await until('reading', async () =>
    ((await (await fetch(`${base}/api/packages`)).json()) as { state: string }[]).every(
      (p) => p.state !== 'reading',
    ),
  );
  await page.goto(`${base}/packages/${id}/sheet`);
  const cell = page.locator('#cell-0-4');
  await cell.waitFor({ timeout: 300_000 });
  await cell.click();
}

const data = await mkdtemp(join(tmpdir(), 'alforja-bench-'));
const { child, base } = await startServer({ port: 4197, data, quiet: true });
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  process.stdout.write(
    '| rows | an arrow / frame | a page / frame | a letter / frame |\n|---:|---:|---:|---:|\n',
  );
  for (const items of sizes) {
    await openSheet(page, base, items);
    const frame = await pressed(page, '', 60);
    const arrow = await pressed(page, 'ArrowDown', 60);
    if ((await page.locator('#cell-60-4').count()) === 0) throw new Error('The arrows moved nothing.');
    const costs = [arrow, await pressed(page, 'PageDown', 30)];
    await page.keyboard.press('F2');
    costs.push(await pressed(page, '1', 30));
    const typed = await page.evaluate(() => (document.activeElement as HTMLTextAreaElement).value);
    if (!typed.endsWith('1'.repeat(30))) throw new Error('The letters were not typed.');
    await page.keyboard.press('Escape');
    const says = (c: Cost): string =>
      `${(c.painted / frame.painted).toFixed(2)} (work ${c.work.toFixed(1)} ms, slowest painted ${c.slowest.toFixed(0)} ms)`;
    process.stdout.write(`| ${items} | ${costs.map(says).join(' | ')} |\n`);
  }
} finally {
  await browser.close();
  child.kill();
  await rm(data, { recursive: true, force: true });
}
