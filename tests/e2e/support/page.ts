import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { expect, type Page } from '@playwright/test';
import { base } from './demo.ts';

export { base };

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface Violation {
  readonly id: string;
  readonly nodes: readonly { readonly html: string; readonly failureSummary: string }[];
}

/** Runs axe-core on the page as it stands (WCAG 2.2 A and AA, and best practices). */
export async function expectAccessible(page: Page, what: string): Promise<void> {
  await atRest(page);
  // The page's own policy lets no script in; the browser's evaluation does not ask it.
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axeSource);
  const violations = await page.evaluate(async () => {
    const { axe } = window as unknown as {
      axe: { run: (options: object) => Promise<{ violations: Violation[] }> };
    };
    // What is pressed is 24 pixels wide and high, or has that room (WCAG 2.2, 2.5.8); axe leaves that out by itself.
    return (await axe.run({ rules: { 'target-size': { enabled: true } } })).violations;
  });
  const said = violations.map(
    (v) => `${v.id}: ${v.nodes.map((n) => `${n.html.slice(0, 160)} ${n.failureSummary}`).join('\n')}`,
  );
  expect(said, what).toEqual([]);
}

/** Waits until nothing fades or slides any more: what is half transparent has half the contrast. */
const atRest = (page: Page): Promise<unknown> =>
  page.waitForFunction(() =>
    document
      .getAnimations()
      .every((a) => a.playState !== 'running' || a.effect?.getComputedTiming().endTime === Infinity),
  );

/** Waits until the server has taken a file or refused it: a page that is left before takes what it was sending with it. */
const answered = (page: Page, name: string): Promise<unknown> =>
  page.waitForResponse((response) => {
    const { pathname, searchParams } = new URL(response.url());
    return pathname === '/api/packages' && searchParams.get('name') === name;
  });

/** Brings a file in as a user does, through the file chooser of the desk. */
export async function bring(page: Page, name: string, bytes: Uint8Array): Promise<void> {
  await page.goto(base);
  const answer = answered(page, name);
  await page
    .locator('input[type=file]')
    .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: Buffer.from(bytes) });
  await answer;
}

/** Opens a package that was brought in, from the desk: its name may stand there twice, once as what waits. */
export async function openBrought(page: Page, name: string): Promise<void> {
  await page.getByRole('region', { name: 'Came in' }).getByRole('link', { name, exact: true }).click();
  await page.waitForURL(/\/packages\/./u);
}

/** Waits until no package is being read and no job runs. */
export async function quiet(page: Page): Promise<void> {
  await expect
    .poll(
      async () =>
        (
          (await (await page.request.get(`${base}/api/packages`, { maxRetries: 3 })).json()) as {
            state: string;
          }[]
        ).filter((p) => p.state === 'reading'),
      { timeout: 90_000 },
    )
    .toEqual([]);
}

/** Waits until so many changes stand over a package, and have been taken in. */
export async function taken(page: Page, changes: number): Promise<void> {
  await expect(page.locator('b').getByText(new RegExp(`^${changes} changes?$`, 'u'))).toBeVisible();
  await expect(page.getByText('taking it in…')).toHaveCount(0);
}
