import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, waitingPage } from './support/test.ts';
import { connectSystems, lookInto, until } from '../../demo/fill.ts';
import { startServer } from '../../scripts/server.mjs';
import { command, courseId, ended, heldBy, onlyHabits, stateOf, takeBack } from './support/courses.ts';
import { demo } from './support/demo.ts';
import { stopped } from './support/process.ts';
import { base, expectAccessible } from './support/page.ts';

test.beforeEach(() => onlyHabits());

test('last term’s exam and its banks go into this term’s course', async ({ page }) => {
  await page.goto(base);
  await page.getByRole('link', { name: 'Bring something into a course' }).click();
  await page.getByLabel('Find the destination').fill('tidal autumn 01 quay');
  await page.getByRole('button', { name: /NAV 205, section 01 Autumn 2026 Quayside/u }).click();
  await expect(page.getByText(/7 attempts in progress/u)).toBeVisible();
  // A slip of the pen and a person's name find it all the same.
  await page.getByLabel('Find the source').fill('brook sprng tides');
  await page.getByRole('button', { name: /NAV 205, section 01 Spring 2026 Quayside/u }).click();
  await page.getByRole('button', { name: 'Open and choose what to include' }).click();
  await page.getByLabel('Quiz Final exam').check();
  await expect(page.getByText(/comes along: Final exam, tides and lights draws from it/u)).toHaveCount(2);
  // Leaving a bank behind says what breaks.
  await page.getByLabel('Bank Ch. 3 Speed').uncheck();
  await expect(
    page.getByText(/draw of 4 in Final exam, tides and lights becomes 4 fixed items/u),
  ).toBeVisible();
  await expectAccessible(page, 'contents of a course');
  await page.getByRole('button', { name: 'Bring the bank after all' }).click();
  await expect(page.getByText('39 of 45 items').first()).toBeVisible();
  await page.getByRole('link', { name: 'Next: Forecast' }).click();
  await page.getByRole('link', { name: 'Next: Landing' }).click();
  await expect(page.getByText('same name', { exact: true })).toBeVisible();
  await expect(page.getByLabel('opens')).toHaveValue('2027-01-11T09:00');
  // Where a date was, and both days of the week.
  await expect(page.getByTestId('moved').first()).toHaveText(
    /^UTC\+02:00 · Monday; in the source Monday,? 8 June 2026/u,
  );
  await expectAccessible(page, 'landing');
  // A date that closes before it opens cannot be sent; a section is changed by dragging.
  await page.getByLabel('closes').fill('2027-01-10T09:00');
  await page.getByLabel('closes').press('Tab');
  await expect(page.getByRole('alert')).toContainText('would close before it opens');
  await page.getByRole('button', { name: 'Reset' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  const row = page.getByRole('listitem').filter({ has: page.getByLabel('Name of the quiz there') });
  await row.dragTo(page.getByRole('region', { name: 'Week 3: Lights' }), {
    sourcePosition: { x: 20, y: 24 },
  });
  await expect(page.getByLabel(/^Section of/u)).toHaveValue('s4');
  await expect(page.getByText('by hand')).toBeVisible();
  await page.getByRole('button', { name: 'Reset' }).click();
  await expect(page.getByText('same name', { exact: true })).toBeVisible();
  await page.getByRole('link', { name: 'Next: Send' }).click();
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('link', { name: 'See what arrived' }).click();
  await expect(page.getByTestId('verdict')).toHaveText(/Everything arrived; nothing differs/u);
  const id = /transfers\/([\w-]+)/u.exec(page.url())![1]!;
  await page.goto(`${base}/transfers/${id}/receipt`);
  for (const said of ['Nerea Sal', 'confirmed', '39 intact', 'Ch. 6 Lights and shapes'])
    await expect(page.getByTestId('receipt')).toContainText(said);
  const csv = await (await page.request.get(`${base}/transfers/${id}/receipt.csv`)).text();
  expect(csv).toContain('planned,"Final exam, tides and lights",quiz,,new');
  const html = await (await page.request.get(`${base}/transfers/${id}/receipt.html`)).text();
  expect(html).toContain('size:A4');
  const text = html.replace(/<[^>]+>/gu, ' ').replace(/\s+/gu, ' ');
  for (const said of ['Into Tides and Tidal Streams (NAV 205)', '39 intact']) expect(text).toContain(said);
  // The tray and the mail catcher were told.
  await page.goto(base);
  await page.getByRole('button', { name: /^Notices/u }).click();
  await expect(page.getByRole('region', { name: 'Notices' })).toContainText('has arrived: 39 questions');
  expect(await (await fetch(`${demo().standins.mail}/mails.json`)).text()).toContain('has arrived');
  // With one's own eyes, in the other system.
  await page.goto(`${demo().standins.quayside}/courses/k-tides-a26`);
  await expect(page.getByText('Final exam, tides and lights')).toBeVisible();
  await takeBack(id);
  expect((await heldBy('k-tides-a26')).map((t) => t.title).sort()).toEqual(['Tide tables', 'Warm-up: tides']);
});

test('what is typed stays while answers come late, and a choice is not undone by it', async ({ page }) => {
  await page.route(/__data\.json/u, async (route) => {
    await new Promise((done) => setTimeout(done, 400));
    await route.continue();
  });
  await page.goto(`${base}/bring`);
  const lands = page.getByLabel('Find the destination');
  await lands.pressSequentially('tidal autumn 01 quay', { delay: 60 });
  await expect(lands).toHaveValue('tidal autumn 01 quay');
  await page.getByRole('button', { name: /NAV 205, section 01 Autumn 2026 Quayside/u }).click();
  const from = page.getByLabel('Find the source');
  // The first words are asked for, and their answer comes in the middle of the next.
  const asked = page.waitForRequest(/__data\.json.*brook/u);
  await from.fill('brook sprng');
  await asked;
  await from.press('End');
  await from.pressSequentially(' tides', { delay: 120 });
  await expect(page).toHaveURL(/to=.*q=brook\+sprng\+tides/u);
  await expect(from).toHaveValue('brook sprng tides');
  await expect(page.getByLabel('Search')).toHaveValue('');
  await page.getByRole('button', { name: /NAV 205, section 01 Spring 2026 Quayside/u }).click();
  await expect(page.getByRole('button', { name: 'Open and choose what to include' })).toBeVisible();
});

test('a package in hand goes into a course', async ({ page }) => {
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'pilotage-week5.imscc' }).first().click();
  await page.getByRole('link', { name: 'Bring into a course…' }).click();
  await page.getByLabel('Find the destination').fill('weather');
  await page.getByRole('button', { name: /Marine Weather/u }).click();
  await page.getByRole('button', { name: 'Open and choose what to include' }).click();
  await page.getByRole('button', { name: 'Only quizzes' }).click();
  await page.getByRole('link', { name: 'Next: Forecast' }).click();
  await page.getByRole('link', { name: 'Next: Landing' }).click();
  await expect(page.getByRole('alert').first()).toContainText('has no section there yet');
  for (const section of await page.getByLabel(/^Section of/u).all()) await section.selectOption('Fronts');
  await page.getByRole('link', { name: 'Next: Send' }).click();
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('link', { name: 'See what arrived' }).click();
  await expect(page.getByTestId('verdict')).toBeVisible();
});

test('two people send to one course at once: one copy of what both need, two true receipts', async ({
  browser,
}) => {
  const source = await courseId('k-tides-s26');
  const dest = await courseId('k-tides-a26');
  const things = await lookInto(base, source);
  await lookInto(base, dest);
  const make = async (title: string): Promise<string> => {
    const ticks = things
      .filter((t) => t.title.startsWith(title))
      .map((t) => ({ kind: t.kind, nodeId: t.id }));
    const response = await fetch(`${base}/api/transfers`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Origin: base },
      body: JSON.stringify({ from: { courseId: source }, to: dest, ticks }),
    });
    return ((await response.json()) as { id: string }).id;
  };
  const ids = [await make('Final exam'), await make('Lights practice')];
  const pages = await Promise.all(
    ids.map(async (id) => {
      const page = waitingPage(await (await browser.newContext()).newPage());
      await page.goto(`${base}/transfers/${id}/send`);
      await expect(page.getByRole('button', { name: 'Send', exact: true })).toBeEnabled();
      return page;
    }),
  );
  await Promise.all(pages.map((p) => p.getByRole('button', { name: 'Send', exact: true }).click()));
  for (const [at, page] of pages.entries()) {
    await page.getByRole('link', { name: 'See what arrived' }).click();
    await expect(page.getByTestId('verdict')).toHaveText(/nothing differs/u);
    await page.goto(`${base}/transfers/${ids[at]}/receipt`);
    await expect(page.getByTestId('receipt')).toContainText('0 missing, 0 extra');
    await page.context().close();
  }
  const titles = (await heldBy('k-tides-a26')).map((t) => t.title);
  expect(titles.filter((t) => t.startsWith('Ch. 6')).length).toBe(1);
  for (const id of ids.reverse()) await takeBack(id);
});

test('killed in the middle of each step, it ends with one copy and a true receipt', async () => {
  test.setTimeout(400_000);
  const data = await mkdtemp(join(tmpdir(), 'alforja-carry-'));
  const at = 'http://127.0.0.1:4186';
  let { child } = await startServer({ port: 4186, data, quiet: true, inside: '127.0.0.1' });
  try {
    const course = await connectSystems(at, demo().standins);
    const [from, to] = [course('p0-old'), course('p0-new')];
    const things = await lookInto(at, from);
    await lookInto(at, to);
    await onlyHabits('slow');
    for (const stops of [
      ['export', 'convert', 'wait', 'compare'],
      ['read', 'upload', 'back'],
    ]) {
      const response = await fetch(`${at}/api/transfers`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', Origin: at },
        body: JSON.stringify({
          from: { courseId: from },
          to,
          ticks: things.map((t) => ({ kind: t.kind, nodeId: t.id })),
        }),
      });
      const { id } = (await response.json()) as { id: string };
      await until(
        'planning',
        async () =>
          ((await (await fetch(`${at}/api/transfers/${id}`)).json()) as { plan: unknown }).plan !== null,
      );
      await command(id, { do: 'send' }, at);
      for (const stop of stops) {
        // Reading and comparing are short: what counts is that the step had begun and not ended, or had just
        // ended.
        await until(stop, async () => {
          const { sending } = await stateOf(id, at);
          return sending !== null && sending.steps.find((s) => s.name === stop)!.state !== 'waiting';
        });
        await stopped(child, 'SIGKILL');
        ({ child } = await startServer({ port: 4186, data, quiet: true, inside: '127.0.0.1' }));
      }
      await ended(id, at);
      const receipt = (await (await fetch(`${at}/transfers/${id}/receipt.json`)).json()) as {
        verdict: string;
        counts: object;
        open: number;
      };
      expect([receipt.verdict, receipt.counts, receipt.open]).toEqual([
        'intact',
        { intact: 60, altered: 0, missing: 0, extra: 0 },
        0,
      ]);
      expect((await heldBy('p0-new')).map((t) => t.title).sort()).toEqual(['Bank 1', 'Quiz 1']);
      await onlyHabits();
      await command(id, { do: 'undo' }, at);
      await until('taking back', async () => (await stateOf(id, at)).sending?.undone != null);
      expect(await heldBy('p0-new')).toEqual([]);
      await onlyHabits('slow');
    }
  } finally {
    await stopped(child);
    await onlyHabits();
    await rm(data, { recursive: true, force: true });
  }
});

test('several courses go as one batch, and it is said how each arrived', async ({ page }) => {
  await page.goto(`${base}/batches/new?from=Spring%202026&to=Autumn%202026`);
  await expectAccessible(page, 'a new batch');
  for (const name of ['NAV 205 Tides', 'NAV 101 Coastal', 'PIL 301 Pilotage'])
    await page.getByLabel(new RegExp(`^What comes from ${name}`, 'u')).selectOption('none');
  await page.getByRole('button', { name: 'Bring 3 courses' }).click();
  await page.waitForURL(/batches\/[0-9a-f]/u);
  await expect(page.getByTestId('batch-state')).toContainText('3 of 3 courses arrived');
  await expect(page.getByTestId('batch-state')).toContainText('180 questions intact, 0 altered, 0 missing');
  await expect(page.getByTestId('state-bar')).toHaveCount(3);
  expect((await page.getByTestId('state-bar').first().boundingBox())!.width).toBeGreaterThan(60);
  await expectAccessible(page, 'a batch');
  await page
    .getByRole('link', { name: /: PRG 20/u })
    .first()
    .click();
  await expect(page.getByTestId('verdict')).toHaveText(/nothing differs/u);
});

test('a sending that is stopped by hand says so, and goes on without a second copy', async ({ page }) => {
  await onlyHabits('slow');
  const source = await courseId('k-tides-s26');
  const dest = await courseId('k-tides-a26');
  const things = await lookInto(base, source);
  await lookInto(base, dest);
  const ticks = things
    .filter((t) => t.title.startsWith('Final'))
    .map((t) => ({ kind: t.kind, nodeId: t.id }));
  const response = await page.request.post(`${base}/api/transfers`, {
    headers: { Origin: base },
    data: { from: { courseId: source }, to: dest, ticks },
  });
  const { id } = (await response.json()) as { id: string };
  await page.goto(`${base}/transfers/${id}/send`);
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await until('the import', async () =>
    ['running', 'done'].includes(
      (await stateOf(id)).sending?.steps.find((s) => s.name === 'wait')?.state ?? '',
    ),
  );
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('stopped by hand');
  await onlyHabits();
  await page.getByRole('button', { name: 'Resume' }).click();
  await page.getByRole('link', { name: 'See what arrived' }).click();
  await expect(page.getByTestId('verdict')).toHaveText(/nothing differs/u);
  expect((await heldBy('k-tides-a26')).filter((t) => t.title.startsWith('Final')).length).toBe(1);
  await takeBack(id);
  expect((await heldBy('k-tides-a26')).length).toBe(2);
});
