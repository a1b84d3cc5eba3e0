import { unzipSync } from 'fflate';
import { expect, test, type Page } from './support/test.ts';
import { chapterBanks } from '../../demo/chapters.ts';
import { readFile } from 'node:fs/promises';
import { courseId, onlyHabits, takeBack } from './support/courses.ts';
import { demo } from './support/demo.ts';
import { base, bring, expectAccessible, quiet } from './support/page.ts';

/** Quizzes and banks made here: from nothing to an exam that stands in a course. */

test.beforeEach(() => onlyHabits());

/** Opens a bank at the left, by its name. */
async function openBank(page: Page, name: string): Promise<void> {
  const banks = page.getByLabel('Take from');
  const value = await banks.locator('option', { hasText: name }).first().getAttribute('value');
  await banks.selectOption(value);
}
/** What is said to be wrong with the quiz. */
const hazard = (page: Page, says: RegExp | string) =>
  page.getByRole('region', { name: 'To check' }).getByRole('listitem').filter({ hasText: says });
const totals = (page: Page) => page.getByTestId('totals');
/** What was changed has been saved and counted. */
const counted = (page: Page): Promise<void> => expect(totals(page)).toContainText('saved');

async function newQuiz(page: Page, title: string): Promise<void> {
  await page.goto(`${base}/quizzes`);
  await page.getByLabel('Name of the new quiz').fill(title);
  await page.getByLabel('Name of the new quiz').press('Enter');
  await page.waitForURL(/\/quizzes\/./u);
}

test('from nothing to a sent exam, by keyboard: drawn, picked, mended, tried, on paper, in the course', async ({
  page,
}) => {
  const from = Date.now();
  await newQuiz(page, 'Marks and tides');
  // The plan: ten of the marks at two points, five of the tides at two.
  await page.getByRole('button', { name: 'By plan' }).press('Enter');
  await page.getByRole('checkbox', { name: /Ch\. 2 Buoys and marks/u }).press('Space');
  await page.getByRole('checkbox', { name: /Ch\. 5 Tides/u }).press('Space');
  await counted(page);
  const planned = async (cell: string, count: string): Promise<void> => {
    await page.getByLabel(`How many: ${cell}`).fill(count);
    await page.getByLabel(`How many: ${cell}`).press('Tab');
    await counted(page);
    await page.getByLabel(`Points each: ${cell}`).fill('2');
    await page.getByLabel(`Points each: ${cell}`).press('Tab');
    await counted(page);
  };
  await planned('Cardinal marks, one answer', '10');
  await expect(page.getByText('of 7').first()).toBeVisible();
  await expect(hazard(page, /wants 10 of “Cardinal marks”/u)).toBeVisible();
  await page.getByRole('button', { name: /^Plan as many as there are/u }).press('Enter');
  await counted(page);
  await expect(page.getByLabel('How many: Cardinal marks, one answer')).toHaveValue('7');
  const plan = page.getByTestId('plan-total');
  await planned('Other marks, one answer', '3');
  await planned('Heights of tide, number', '5');
  await expect(plan).toContainText('15 questions, 30 points');
  await expect(page.getByRole('img', { name: /Points by category/u })).toBeVisible();
  expect(
    (await page.getByRole('img', { name: /Points by category/u }).boundingBox())!.height,
  ).toBeGreaterThan(60);
  await page.getByRole('button', { name: 'By plan' }).press('Enter');

  // Ten of 22, two points each, whatever they are worth in the bank.
  await openBank(page, 'Ch. 2 Buoys and marks');
  await expect(page.getByText('22 questions, 27 points')).toBeVisible();
  await page.getByRole('button', { name: 'Draw from all 22' }).press('Enter');
  await counted(page);
  await expect(totals(page)).toContainText('10 to 15 points');
  await expect(hazard(page, 'Items of one draw are worth different points (1, 2).')).toBeVisible();
  await page.getByLabel('points each', { exact: true }).fill('2');
  await page.getByLabel('points each', { exact: true }).press('Tab');
  await counted(page);
  await expect(totals(page)).toContainText('20 points');
  await expect(hazard(page, 'Items of one draw are worth different points')).toHaveCount(0);

  // Five fixed ones, ticked and put in without the mouse.
  await openBank(page, 'Ch. 5 Tides');
  const list = page.getByRole('listbox', { name: 'Questions of the bank' });
  await expect(list.getByRole('option').first()).toContainText('High water 5.2 m');
  await list.focus();
  await list.press('v');
  await expect(page.getByTestId('peek')).toContainText('What is the range, in metres?');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('peek')).toHaveCount(0);
  await list.focus();
  for (const skip of [2, 1, 1, 1, 0]) {
    await list.press('Space');
    for (let n = 0; n < skip; n++) await list.press('ArrowDown');
  }
  await expect(page.getByText('; 5 ticked')).toBeVisible();
  await list.press('Enter');
  await counted(page);
  await expect(totals(page)).toContainText('15 questions');
  const rows = page.getByRole('region', { name: 'Section 1' }).getByRole('listitem');
  await expect(rows).toHaveCount(5);
  for (const n of [1, 2, 3, 4, 5]) {
    await page.getByLabel(`Points of question ${n}`, { exact: true }).fill('2');
    await page.getByLabel(`Points of question ${n}`, { exact: true }).press('Tab');
  }
  await counted(page);
  await expect(totals(page)).toContainText('30 points');
  await expect(totals(page)).toContainText('30 planned');
  await expectAccessible(page, 'a quiz being made');

  // Moved, taken out and brought back.
  const names = (): Promise<string[]> => rows.allInnerTexts();
  const before = await names();
  await rows.first().getByTitle('Show it as students see it').press('Alt+ArrowDown');
  await expect.poll(async () => (await names())[1]).toContain('High water 5.2 m');
  await page.getByRole('button', { name: 'Undo' }).press('Enter');
  await expect.poll(names).toEqual(before);
  await rows.first().getByTitle('Show it as students see it').press('Delete');
  await expect(rows).toHaveCount(4);
  await page.keyboard.press('Control+z');
  await expect(rows).toHaveCount(5);
  await counted(page);

  // What is wrong with it: no key, "all of the above", nearly the same twice.
  for (const says of [/No answer scores/u, /“All of the above” moves/u, /nearly the same question/u])
    await expect(hazard(page, says)).toBeVisible();
  await page.getByRole('button', { name: /^Put all \d+ right/u }).press('Enter');
  await counted(page);
  await page.getByRole('button', { name: /^Leave it out of the draw.*nearly the same/u }).press('Enter');
  await counted(page);
  await expect(page.getByText(/No answer scores|moves when choices|nearly the same question/u)).toHaveCount(
    0,
  );

  await page.getByRole('button', { name: 'Instructions and settings' }).press('Enter');
  await page.getByLabel('Minutes').fill('5');
  await page.getByLabel('Minutes').press('Tab');
  await page.getByLabel('Pass mark, in points').fill('31');
  await page.getByLabel('Pass mark, in points').press('Tab');
  await page.getByLabel('Instructions', { exact: true }).fill('The chart of the bay is allowed.');
  await page.getByLabel('Instructions', { exact: true }).press('Tab');
  await counted(page);
  await page.getByRole('button', { name: /^Set the pass mark to 30/u }).press('Enter');
  await counted(page);
  await page.getByRole('button', { name: /^Give 20 minutes/u }).press('Enter');
  await counted(page);
  await expect(page.getByLabel('Minutes')).toHaveValue('20');
  const maker = page.url();

  await page.getByRole('button', { name: 'What students get' }).press('Enter');
  await page.waitForURL(/\/draws$/u);
  await expect(page.getByTestId('fairness')).toContainText('30 points for everybody');
  await page.getByRole('link', { name: 'Try it' }).press('Enter');
  await expect(page.getByText('The chart of the bay is allowed.')).toBeVisible();
  await page.getByRole('button', { name: 'Begin' }).press('Enter');
  await expect(page.getByRole('navigation', { name: 'Questions' }).getByRole('button')).toHaveCount(15);
  await page.getByRole('textbox', { name: 'Your answer' }).fill('4.8');
  await page.getByRole('button', { name: 'Hand everything in' }).press('Enter');
  await page.getByRole('button', { name: 'Hand in all the same' }).press('Enter');
  await expect(page.getByTestId('sitting-total')).toContainText('2 of 30');

  // Versions A and B on paper, with keys.
  await page.getByRole('link', { name: 'Versions and paper' }).press('Enter');
  await expect(page.getByText('Version A').first()).toBeVisible();
  await expect(page.getByText('30 points').nth(1)).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'All papers and keys as docx' }).press('Enter');
  const papers = Object.keys(unzipSync(await readFile(await (await download).path())));
  expect(papers.filter((p) => p.endsWith('.docx'))).toHaveLength(4);

  // Into a course: hidden, with dates; what arrives is what was made.
  await page.goto(maker);
  await page.getByRole('button', { name: 'Bring into a course…' }).press('Enter');
  await page.waitForURL(/\/bring/u);
  await page.getByLabel('Find the destination').fill('NAV 101 autumn quayside');
  await page.getByRole('button', { name: /NAV 101, section 01 Autumn 2026 Quayside/u }).press('Enter');
  await page.getByRole('button', { name: 'Open and choose what to include' }).press('Enter');
  await expect(page.getByText(/\d+ of \d+ items/u).first()).toBeVisible();
  await expect(page.getByLabel('Quiz Marks and tides')).toBeChecked();
  await page.getByRole('link', { name: 'Next: Forecast' }).press('Enter');
  await page.getByRole('link', { name: 'Next: Landing' }).press('Enter');
  const section = page.getByLabel(/^Section of/u);
  await section.selectOption({ index: 1 });
  await page.getByLabel('opens').fill('2026-12-07T09:00');
  await page.getByLabel('opens').press('Tab');
  await page.getByLabel('closes').fill('2026-12-07T11:00');
  await page.getByLabel('closes').press('Tab');
  await expect(page.getByLabel('hidden')).toBeChecked();
  await page.getByRole('link', { name: 'Next: Send' }).press('Enter');
  await page.getByRole('button', { name: 'Send', exact: true }).press('Enter');
  await page.getByRole('link', { name: 'See what arrived' }).press('Enter');
  await expect(page.getByTestId('verdict')).toHaveText(/Everything arrived; nothing differs/u);
  expect(Date.now() - from, 'ms from nothing to a sent exam').toBeLessThan(5 * 60_000);
  const sent = /transfers\/([\w-]+)/u.exec(page.url())![1]!;

  // The same answers on both sides come to the same points.
  await page.getByTestId('both-sides').getByRole('link', { name: 'Marks and tides' }).press('Enter');
  await expect(page.getByTestId('many')).toContainText('All 1,000 reach the same points on both sides.');
  await expectAccessible(page, 'both sides of a quiz');
  await takeBack(sent);
  expect(await courseId('k-tides-s26')).not.toBe('');
});

test('an altered quiz says by how much, and where it comes from', async ({ page }) => {
  await page.goto(`${base}/transfers/${demo().transfer}/arrival`);
  await page.getByTestId('both-sides').getByRole('link').first().click();
  await expect(page.getByTestId('many')).toContainText(/\d+ of 1,000 reach other points/u);
  const chart = page.getByRole('img', { name: /Points they reach/u });
  expect((await chart.boundingBox())!.height).toBeGreaterThan(100);
  await expect(page.getByTestId('from').getByRole('row').nth(1)).toContainText(/-\d/u);
  const sheet = page.getByTestId('both-sheet').getByRole('row');
  await expect(sheet.nth(1).locator('svg')).toBeVisible();
  const points = (await page.getByTestId('sheet-totals').innerText()).match(/[\d.]+/gu)!;
  expect(Number(points[0])).toBeGreaterThan(Number(points[1]));
  await page.getByLabel('Answers').selectOption('blank');
  await page.getByRole('button', { name: 'Answer again' }).click();
  await expect(page.getByTestId('sheet-totals')).toContainText('0 sent, 0 arrived');
});

test('a bank of one’s own is merged, weeded, kept up with its source, split, and found', async ({ page }) => {
  // A copy of its own, since it is changed.
  const bytes = chapterBanks();
  bytes[10] = 1;
  await bring(page, 'chapters-to-change.zip', bytes);
  await quiet(page);
  await page.goto(`${base}/banks`);
  await expectAccessible(page, 'banks');
  const ticked = page.getByRole('checkbox', { name: /chapters-to-change\.zip/u });
  await expect(ticked).toHaveCount(2);
  await ticked.nth(0).check();
  await ticked.nth(1).check();
  await page.getByLabel('Name of the new bank').fill('Best of both');
  await page.getByRole('button', { name: 'Merge 2 into a new bank' }).click();
  await page.waitForURL(/\/banks\/./u);
  await expect(page.getByTestId('bank-totals')).toContainText('40 questions');
  await expect(page.getByText('nearly the same')).toBeVisible();
  await expectAccessible(page, 'a bank of one’s own');
  await page.getByRole('button', { name: /^Keep the first/u }).click();
  await expect(page.getByTestId('bank-totals')).toContainText('39 questions');

  const all = (await (await fetch(`${base}/api/packages`)).json()) as { id: string; name: string }[];
  const source = all.find((p) => p.name === 'chapters-to-change.zip')!.id;
  const change = await fetch(`${base}/api/packages/${source}/edits`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Origin: base },
    body: JSON.stringify({
      way: 'hand',
      edits: [{ op: 'stem', node: 'mk-22', to: 'Which colour have special marks?' }],
    }),
  });
  expect(change.ok).toBe(true);
  await quiet(page);
  await page.reload();
  await expect(page.getByText('1 question changed where it comes from.')).toBeVisible();
  const old = page.getByRole('listitem').filter({ hasText: 'The colour of every special mark' });
  await page.locator('ol').getByText('Region A: a port-hand').waitFor();
  await page.getByRole('button', { name: 'Take it as it is now', exact: true }).click();
  await expect(page.getByText('changed where it comes from')).toHaveCount(0);
  await expect(old).toHaveCount(0);

  await page.getByRole('checkbox', { name: /Region A: a port-hand mark/u }).check();
  await page.getByRole('checkbox', { name: /Region A: a starboard-hand mark/u }).check();
  await page.getByLabel('Name of the bank they go to').fill('Sides');
  await page.getByRole('button', { name: 'Split 2 off into a bank' }).click();
  await expect(page.getByLabel('Name of the bank', { exact: true })).toHaveValue('Sides');
  await expect(page.getByTestId('bank-totals')).toContainText('2 questions');
  // Another is dragged in, from another bank.
  await openBank(page, 'Ch. 6 Lights and shapes');
  await page
    .getByRole('listbox', { name: 'Questions of the bank' })
    .getByRole('option')
    .first()
    .dragTo(page.getByRole('region', { name: 'This bank' }));
  await expect(page.getByTestId('bank-totals')).toContainText('3 questions');
  await page.goto(`${base}/banks`);
  const row = page.getByRole('row').filter({ hasText: 'Best of both' });
  await expect(row).toContainText('made here');
  await expect(row.getByRole('cell', { name: '37', exact: true })).toBeVisible();
  await page.goto(`${base}/find?q=best+of+both`);
  await expect(page.getByRole('link', { name: /Best of both/u }).first()).toHaveAttribute(
    'href',
    /\/banks\//u,
  );
});

test('questions are dragged into a quiz; a filter says what a draw is out of', async ({ page }) => {
  // Two files of one name are two places.
  for (const byte of [2, 3]) {
    const bytes = chapterBanks();
    bytes[10] = byte;
    await bring(page, 'one-name.zip', bytes);
    await quiet(page);
  }
  await newQuiz(page, 'Dragged');
  await expect(page.getByLabel('Take from').locator('optgroup[label="one-name.zip"]')).toHaveCount(2);
  await openBank(page, 'Ch. 2 Buoys and marks');
  await page.getByLabel('Category').selectOption('Lateral marks');
  await page.getByLabel('Kind').selectOption('choice');
  await page.getByLabel('Words in the question').fill('REGION');
  await expect(page.getByText('4 questions, 6 points')).toBeVisible();
  const section = page.getByRole('region', { name: 'Section 1' });
  await page
    .getByRole('listbox', { name: 'Questions of the bank' })
    .getByRole('option')
    .first()
    .dragTo(section);
  await expect(section.getByRole('listitem')).toHaveCount(1);
  await expect(
    page.getByRole('listbox', { name: 'Questions of the bank' }).getByRole('option').first(),
  ).toContainText('in here already');
  await page.getByRole('button', { name: 'Draw from these 4' }).click();
  await expect(
    page.getByText(/out of Ch\. 2 Buoys and marks \(Lateral marks, one answer, “REGION”\)/u),
  ).toBeVisible();
  await expect(hazard(page, /the same question \(in 100 % of all cases\)/u)).toBeVisible();
  await page
    .getByRole('button', { name: /^Leave it out of the draw/u })
    .first()
    .click();
  await expect(page.getByText('without 1')).toBeVisible();
  // Another window has changed it meanwhile: nothing is written over.
  const other = await page.context().newPage();
  await other.goto(page.url());
  await other.getByRole('button', { name: 'Add a section' }).click();
  await counted(other);
  await page.getByRole('button', { name: 'Add a section' }).click();
  await expect(page.getByRole('alert')).toContainText('changed in another window');
});

test('a file of data shows its first rows, and can be taken away', async ({ page }) => {
  const all = (await (await fetch(`${base}/api/packages`)).json()) as { id: string; name: string }[];
  const id = all.find((p) => p.name === 'exercises-week6.zip')!.id;
  const rows = (await (await fetch(`${base}/find?q=exercises`)).text()).length;
  expect(rows).toBeGreaterThan(0);
  const items = 21;
  for (let seq = 0; seq < items; seq++) {
    const view = (await (await fetch(`${base}/api/packages/${id}/items/${seq}`)).json()) as {
      item: { files: { path: string }[] };
    };
    if (!view.item.files.some((f) => f.path.endsWith('.csv'))) continue;
    await page.goto(`${base}/packages/${id}?item=${seq}`);
    const peep = page.getByTestId('data-peep').first();
    await expect(peep).toBeVisible();
    expect((await peep.boundingBox())!.height).toBeGreaterThan(40);
    await expect(page.getByRole('link', { name: 'Download', exact: true }).first()).toHaveAttribute(
      'download',
      /\.csv$/u,
    );
    return;
  }
  throw new Error('no item of it has a file of data');
});
