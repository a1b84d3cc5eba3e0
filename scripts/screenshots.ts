import { mkdtemp, mkdir } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { publisherBank } from '../demo/publisher.ts';
import { bring, carryAcross, fill, fillCourses, until } from '../demo/fill.ts';
import { makeBank, makeQuiz } from './shotsMade.ts';
import { startStandins } from './standins.mjs';
import { startServer } from './server.mjs';

/** Takes a picture of each main view at 1280x800 from a fresh demo. */
const folder = process.argv[2] ?? 'docs/screenshots';
await mkdir(folder, { recursive: true });
const data = await mkdtemp(join(tmpdir(), 'alforja-shots-'));
const standins = await startStandins({
  port: 4290,
  folder: join(data, 'standins'),
  pairs: 8,
  items: 60,
  quiet: true,
});
const { child, base } = await startServer({
  port: 4199,
  data,
  quiet: true,
  smtp: standins.addresses.smtp,
  inside: '127.0.0.1',
});
try {
  const { transfer } = await fill(base);
  const crossing = await fillCourses(base, standins.addresses);
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const shot = async (name: string, path: string, before?: () => Promise<void>): Promise<void> => {
    await page.goto(base + path, { waitUntil: 'load' });
    await page.waitForTimeout(600);
    await before?.();
    await page.waitForTimeout(250);
    await page.screenshot({ path: join(folder, `${name}.png`) });
  };
  const packages = (await (await fetch(`${base}/api/packages`)).json()) as { id: string; name: string }[];
  const week5 = packages.find((p) => p.name === 'pilotage-week5.imscc')!.id;
  await shot('desk', '/');
  await shot('room', `/packages/${week5}?item=2`);
  const resit = packages.find((p) => p.name === 'chartwork-resit.docx')!.id;
  await shot('document', `/packages/${resit}/document`);
  const exam = `/packages/${week5}/quizzes/tidal-exam`;
  await shot('sitting', `${exam}/try`, async () => {
    await page.getByRole('button', { name: 'Begin' }).click();
    await page.getByRole('radio').first().check();
    await page.getByRole('button', { name: 'Next' }).click();
    await page.getByRole('textbox', { name: 'Your answer' }).fill('3.3');
    await page.getByRole('button', { name: 'Next' }).click();
    await page.getByRole('checkbox').first().check();
    await page.waitForTimeout(500);
  });
  await shot('change', `/packages/${week5}?item=2`, async () => {
    await page.getByRole('button', { name: 'Change it' }).click();
    await page.getByRole('textbox', { name: 'Question', exact: true }).locator('p').first().click();
    await page.waitForTimeout(300);
  });
  const { id: publisher } = await bring(base, 'publisher-bank.zip', publisherBank());
  await until('reading', async () =>
    ((await (await fetch(`${base}/api/packages`)).json()) as { state: string }[]).every(
      (p) => p.state !== 'reading',
    ),
  );
  await shot('sheet', `/packages/${publisher}/sheet`, async () => {
    await page.getByRole('combobox', { name: /^Kind/u }).selectOption({ label: 'one answer (160)' });
    await page.getByRole('columnheader', { name: 'Points' }).click();
    await page.keyboard.type('2');
    await page.keyboard.press('Control+Enter');
    await page.getByText('taking it in…').waitFor({ state: 'detached' });
    await page.waitForTimeout(1500);
  });
  await shot('arrival', `/transfers/${transfer}/arrival`, async () => {
    await page.getByRole('treeitem').nth(1).click();
    await page.waitForTimeout(200);
  });
  await shot('receipt', `/transfers/${transfer}/receipt`);
  await page.goto(`${base}/transfers/${transfer}/arrival`);
  await page.getByTestId('both-sides').getByRole('link').first().click();
  await page.getByTestId('both-sheet').waitFor();
  await page.waitForTimeout(800);
  await page.screenshot({ path: join(folder, 'both.png') });
  await makeQuiz(page, base);
  await page.screenshot({ path: join(folder, 'maker.png') });
  await makeBank(page, base);
  await page.screenshot({ path: join(folder, 'bank.png') });
  const midterm = packages.find((p) => p.name === 'midterm-export.zip')!.id;
  await shot('draws', `/packages/${midterm}/quizzes/midterm/draws`, async () => {
    await page.getByText('Simulated candidates answer').waitFor();
    await page.waitForTimeout(800);
  });
  const exercises = packages.find((p) => p.name === 'exercises-week6.zip')!.id;
  await shot('versions', `/packages/${exercises}/quizzes/exercises-week6/versions`, () =>
    page.getByTestId('version-table').waitFor(),
  );
  await shot('forecast', `/packages/${midterm}`, async () => {
    await page.getByRole('button', { name: 'Convert or send…' }).click();
    await page.waitForURL(/\/transfers\//u);
    await page.getByRole('link', { name: 'Next: Forecast' }).click();
    await page.getByRole('radio', { name: /^Common Cartridge 1\.3/u }).check();
    await page.getByText('become fixed items, drawn with seed 1').first().waitFor();
  });
  await page.goto(`${base}/rubrics`);
  await page.locator('li', { hasText: 'passage-plan.csv' }).getByRole('link').click();
  await page.getByLabel('Compare with').selectOption({ label: 'Passage plan (passage-plan-came-back.json)' });
  await page.getByText('The same ticks').waitFor();
  await page.screenshot({ path: join(folder, 'rubrics.png') });
  await page.getByLabel('Compare with').selectOption({ label: 'none' });
  await page.getByRole('button', { name: 'Copy, to change it' }).click();
  await page.getByRole('gridcell').nth(2).click();
  await page.getByRole('button', { name: 'Duplicate' }).first().click();
  await page.waitForTimeout(600);
  await page.screenshot({ path: join(folder, 'rubric-sheet.png') });
  const courses = (await (await fetch(`${base}/api/courses`)).json()) as { id: string }[];
  const course = (id: string): string => courses.find((c) => c.id.endsWith(`:${id}`))!.id;
  const again = await carryAcross(
    base,
    course('k-tides-s26'),
    course('k-tides-a26'),
    (t) => t.title.startsWith('Final') || t.kind === 'link',
  );
  await fetch(`${base}/api/transfers/${again}/do`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Origin: base },
    body: '{"do":"undo"}',
  });
  await until(
    'taking back',
    async () =>
      ((await (await fetch(`${base}/api/transfers/${again}`)).json()) as { sending: { undone: unknown } })
        .sending.undone !== null,
  );
  await page.goto(
    `${base}/bring?to=${encodeURIComponent(course('k-tides-a26'))}&from=${encodeURIComponent(course('k-tides-s26'))}`,
  );
  await page.getByRole('button', { name: 'Open and choose what to include' }).click();
  await page.getByLabel('Quiz Final exam').check();
  await page.getByLabel('Link Tide tables').check();
  await page.getByRole('link', { name: 'Next: Forecast' }).click();
  await page.getByRole('link', { name: 'Next: Landing' }).click();
  await page.getByText('same name', { exact: true }).first().waitFor();
  await page.waitForTimeout(1500);
  await page.screenshot({ path: join(folder, 'landing.png') });
  await shot('course-arrival', `/transfers/${crossing}/arrival`);
  await page.goto(`${base}/batches/new?from=Spring%202026&to=Autumn%202026`);
  await page.getByRole('button', { name: /^Bring/u }).click();
  await page.waitForURL(/batches\/[0-9a-f]/u);
  await page.getByText(/^11 of 11 courses arrived/u).waitFor({ timeout: 180_000 });
  await page.waitForTimeout(1000);
  await page.screenshot({ path: join(folder, 'batch.png') });
  await browser.close();
} finally {
  child.kill();
  standins.child.kill();
}
