import { chapterFiles } from '../../demo/book/files.ts';
import { expect, test } from './support/test.ts';
import { onlyHabits, takeBack } from './support/courses.ts';
import { base, bring, expectAccessible, quiet, taken } from './support/page.ts';

test.beforeEach(() => onlyHabits());

const chapters = async () =>
  (await chapterFiles()).map(({ name, bytes }) => ({
    name,
    mimeType: 'application/octet-stream',
    buffer: Buffer.from(bytes),
  }));

test('twelve chapters dropped together become twelve banks in a course, keys proved', async ({ page }) => {
  await page.goto(base);
  await page.locator('input[type=file]').setInputFiles(await chapters());
  await expect(page).toHaveURL(/\/packages\/together/u);
  // Twelve files of six kinds are read one after the other.
  await expect(page.getByText('12 together: 166 questions, 207 points')).toBeVisible({ timeout: 60_000 });
  for (const kind of ['Word-processor file', 'Table', 'Rich text', 'Plain text', 'Web page', 'PDF'])
    await expect(page.getByRole('cell', { name: kind, exact: true }).first()).toBeVisible();
  await expectAccessible(page, 'files that came in together');
  // What is not to go with the others is unticked, and ticked again.
  await page.getByLabel('Include pilotage-ch08.pdf').uncheck();
  await expect(page.getByText('11 together: 154 questions')).toBeVisible();
  await page.getByLabel('Include pilotage-ch08.pdf').check();
  await page.getByRole('button', { name: 'Bring them into a course…' }).click();
  await page.getByLabel('Find the destination').fill('tidal autumn 01 quay');
  await page.getByRole('button', { name: /NAV 205, section 01 Autumn 2026 Quayside/u }).click();
  await page.getByRole('button', { name: 'Open and choose what to include' }).click();
  await expect(page.getByText('166 of 166 items').first()).toBeVisible();
  await page.getByRole('link', { name: /^Send/u }).first().click();
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('link', { name: 'See what arrived' }).click();
  await expect(page.getByTestId('verdict')).toBeVisible();
  await expect(page.getByTestId('seam')).toContainText('12 banks');
  // Whatever the course changed of it, no key is another one.
  await expect(page.getByText('key changed')).toHaveCount(0);
  await expect(page.getByTestId('seam')).not.toContainText('missing');
  await takeBack(/transfers\/([\w-]+)/u.exec(page.url())![1]!);
});

test('a document stands beside its questions: every block, the layout in words, and what is said by hand', async ({
  page,
}) => {
  const packages = (await (await page.request.get(`${base}/api/packages`)).json()) as {
    id: string;
    name: string;
  }[];
  const id = packages.find((p) => p.name === 'chartwork-resit.docx')!.id;
  await page.goto(`${base}/packages/${id}`);
  await page.getByRole('link', { name: 'Beside the document' }).click();
  const seam = page.getByTestId('document-seam');
  await expect(seam.getByRole('button', { name: '5 not read' })).toBeVisible();
  await expect(seam.getByText('in no question').first()).toBeVisible();
  // Only what is open, then all of it again.
  await seam.getByRole('button', { name: '5 not read' }).click();
  await expect(seam.locator('[data-standing="not read"]')).toHaveCount(5);
  await expect(seam.locator('[data-standing="read"]')).toHaveCount(0);
  await seam.getByRole('button', { name: '5 not read' }).click();
  // The thread of a row has a size; the loose end is another shape than what is read.
  const stitch = seam.locator('[data-standing="not read"] svg path').first();
  await expect.poll(async () => (await stitch.boundingBox())?.width ?? 0).toBeGreaterThan(20);
  await seam.locator('[data-block="2"]').getByLabel('This is').selectOption('no part of any question');
  await taken(page, 1);
  await expect(seam.getByText('set aside')).toBeVisible();
  await seam.locator('[data-block="12"]').getByLabel('This is').selectOption('a new question begins here');
  await taken(page, 2);
  await expect(seam.getByText('6 questions')).toBeVisible();
  await expectAccessible(page, 'a document beside its questions');
  // By the keyboard: a block that was read is opened, and given to something else.
  const number = seam.getByRole('button', { name: 'Block 15: say what it is' });
  await number.focus();
  await page.keyboard.press('Enter');
  await expect(number).toHaveAttribute('aria-expanded', 'true');
  await page.getByRole('button', { name: 'Undo' }).click();
  await taken(page, 1);
  await expect(seam.getByText('5 questions')).toBeVisible();
  // The layout: keys are nowhere, then where they were.
  await page.getByRole('combobox', { name: 'Key', exact: true }).selectOption('nowhere');
  await taken(page, 2);
  await expect(seam.getByText('no key').first()).toBeVisible();
  await expect(page.getByText('Layout as you set it.')).toBeVisible();
  await page.getByRole('button', { name: 'Use what is found' }).click();
  await taken(page, 3);
  await expect(seam.getByText('no key')).toHaveCount(0);
  // What was said is taken in for good, and all of it can be undone.
  await page.getByRole('link', { name: 'Open the questions' }).click();
  await expect(page.getByText('3 changes')).toBeVisible();
  for (const left of [2, 1]) {
    await page.getByRole('button', { name: 'Undo' }).click();
    await taken(page, left);
  }
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('As it came; nothing changed')).toBeVisible();
  await quiet(page);
});

test('pictures and formulas have their size in both pouches; a layout is saved, listed, and removed', async ({
  page,
}) => {
  const [first] = await chapters();
  await bring(page, 'one-chapter.docx', first!.buffer);
  await quiet(page);
  await page.goto(base);
  await page
    .getByRole('link', { name: /^(?:one-chapter|pilotage-ch01)\.docx$/u })
    .first()
    .click();
  await page.getByRole('link', { name: 'Beside the document' }).click();
  const seam = page.getByTestId('document-seam');
  const scrolled = seam.getByRole('region', { name: 'Document and questions side by side' });
  await expect(scrolled.locator('[data-index="1"]')).toBeVisible();
  await scrolled.evaluate((element) => (element.scrollTop = 900));
  await expect(seam.locator('img')).toHaveCount(4);
  for (const picture of await seam.locator('img').all())
    await expect.poll(async () => (await picture.boundingBox())?.width ?? 0).toBeGreaterThan(120);
  await expect.poll(() => seam.locator('math').count()).toBeGreaterThanOrEqual(2);
  for (const formula of await seam.locator('math').all())
    await expect.poll(async () => (await formula.boundingBox())?.height ?? 0).toBeGreaterThan(14);
  await page.getByRole('button', { name: 'Save this layout…' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Chapters of the book');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.getByRole('link', { name: 'Reading rules' }).click();
  await expect(page.getByLabel('Name of the layout Chapters of the book')).toBeVisible();
  await expect(page.getByText('questions 1. 2. 3.; choices a. b. c.; key bold')).toBeVisible();
  await expectAccessible(page, 'reading rules with a layout');
  const download = await (await page.request.get(`${base}/rules/rules.json`)).text();
  await page.getByRole('button', { name: 'Remove the layout Chapters of the book' }).click();
  // Its name stands in a field: as text it is nowhere from the start.
  await expect(page.getByLabel('Name of the layout Chapters of the book')).toHaveCount(0);
  // A file that is none says why; the one that was downloaded brings the layout back.
  const take = page.locator('input[type=file][name=file]');
  await take.setInputFiles({
    name: 'no.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"rules": 1}'),
  });
  await expect(page.getByRole('alert')).toContainText('no.json cannot be used');
  await take.setInputFiles({ name: 'r.json', mimeType: 'application/json', buffer: Buffer.from(download) });
  await expect(page.getByLabel('Name of the layout Chapters of the book')).toBeVisible();
  await page.getByRole('button', { name: 'Remove the layout Chapters of the book' }).click();
  await expect(page.getByLabel('Name of the layout Chapters of the book')).toHaveCount(0);
  await quiet(page);
});
