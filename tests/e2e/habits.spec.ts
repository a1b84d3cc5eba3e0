import { expect, test, type Page } from './support/test.ts';
import { carryAcross } from '../../demo/fill.ts';
import type { Habit } from '../../standins/habits.ts';
import {
  bringExam,
  command,
  courseId,
  ended,
  heldBy,
  onlyHabits,
  openArrival,
  takeBack,
} from './support/courses.ts';
import { base } from './support/page.ts';

/** What the arrival check has to say of each habit, and nothing else. */
const CAUGHT: readonly [habit: Habit, says: readonly RegExp[], differences: number][] = [
  ['landsByPosition', [/Final exam, tides and lights, section.*Exam period.*Week 4: Passage/u], 1],
  [
    'equalDates',
    [
      /dates.*11 Jan 2027, 09:00 \+02:00 to 11 Jan 2027, 12:00.*found.*11 Jan 2027, 09:00 \+02:00 to 11 Jan 2027, 09:00/u,
    ],
    1,
  ],
  ['dropsInstructions', [/instructions.*Work alone.*found.*nothing/u], 1],
  [
    'namesAfterExporter',
    [/Final exam, tides and lights, name.*Nerea Sal, import/u, /Ch\. 6 Lights and shapes, name/u],
    3,
  ],
  ['nameless', [/Final exam, tides and lights, name.*no name/u], 3],
  ['roundsPoints', [/planned\s+points:/u, /draw.*1\.5 points each.*2 points each/u], 3],
  ['dropsTolerance', [/tolerance changed: 17 questions/u], 17],
  ['lowersCase', [/planned\s+capitals:/u], 1],
  ['stripsFeedback', [/feedback changed: 2 questions/u], 2],
  ['losesSpacedFiles', [/harbour chart\.png.*missing/u, /planned\s+files:/u], 2],
  ['reordersChoices', [/choices in another order: 4 questions/u], 4],
];

const notPlanned = (page: Page) => page.getByRole('region', { name: 'Differences' });

for (const [habit, says, differences] of CAUGHT) {
  test(`the habit ${habit} is caught, and by its name`, async ({ page }) => {
    await onlyHabits(habit);
    const id = await bringExam('k-tides-a26');
    await openArrival(page, id);
    for (const said of says) await expect(notPlanned(page)).toContainText(said);
    await expect(page.getByRole('link', { name: 'Arrival' })).toContainText(`${differences} to decide`);
    await takeBack(id);
  });
}

test('an altered question unfolds to the answer that scores otherwise', async ({ page }) => {
  await onlyHabits('dropsTolerance');
  const id = await bringExam('k-tides-a26');
  await openArrival(page, id);
  await page.getByRole('tree', { name: 'Items side by side' }).focus();
  await page.keyboard.press('n');
  await expect(page.getByText(/Answer 3\.[234]: 3 points/u)).toBeVisible();
  await takeBack(id);
});

test('a second copy of what is there already is seen, and taken out', async ({ page }) => {
  await onlyHabits();
  const first = await bringExam('k-tides-a26');
  await onlyHabits('doublesOnRepeat');
  // The practice quiz draws from a bank that the exam has brought.
  const id = await carryAcross(
    base,
    await courseId('k-tides-s26'),
    await courseId('k-tides-a26'),
    (t) => t.title === 'Lights practice',
  );
  await openArrival(page, id);
  const copy = notPlanned(page).getByRole('listitem').filter({ hasText: 'a second copy' });
  await expect(copy).toContainText('Ch. 6 Lights and shapes, number of copies');
  await onlyHabits();
  await copy.getByRole('button', { name: 'Remove from course' }).click();
  await expect(copy).toHaveCount(0);
  expect((await heldBy('k-tides-a26')).filter((t) => t.title.startsWith('Ch. 6')).length).toBe(1);
  await takeBack(id);
  await takeBack(first);
});

test('a bank left out of an export is noticed, and the whole course read instead', async ({ page }) => {
  await onlyHabits('leavesBankOut');
  const id = await bringExam('k-tides-a26');
  await openArrival(page, id);
  await expect(
    page.getByText(/left out “Ch\. 6 Lights and shapes”.*whole course was read back/u),
  ).toBeVisible();
  await expect(page.getByTestId('verdict')).toHaveText(/nothing differs/u);
  await takeBack(id);
});

test('lost answers double nothing, and are told', async ({ page }) => {
  await onlyHabits('losesAnswers');
  const id = await bringExam('k-tides-a26');
  await openArrival(page, id);
  await expect(page.getByText(/no answer to the upload of the package.*nothing was doubled/u)).toBeVisible();
  await expect(page.getByTestId('verdict')).toHaveText(/nothing differs/u);
  expect((await heldBy('k-tides-a26')).filter((t) => t.title.startsWith('Final')).length).toBe(1);
  await takeBack(id);
});

test('slowness is told, and changes nothing', async ({ page }) => {
  await onlyHabits('slow');
  const id = await bringExam('k-tides-a26');
  await openArrival(page, id);
  await expect(page.getByText(/took [2-9] seconds over the import; nothing was lost/u)).toBeVisible();
  await takeBack(id);
});

test('an import that breaks off half way goes on from there, without a second copy', async ({ page }) => {
  await onlyHabits('failsHalfWay');
  const id = await bringExam('k-tides-a26');
  await page.goto(`${base}/transfers/${id}/send`);
  await expect(page.getByRole('alert')).toContainText(/Arrived: Ch\. 6 Lights and shapes\. Not arrived: 2/u);
  await page.getByRole('button', { name: 'Resume' }).click();
  await expect(page.getByRole('link', { name: 'See what arrived' })).toBeVisible();
  await openArrival(page, id);
  await expect(page.getByTestId('verdict')).toHaveText(/nothing differs/u);
  const titles = (await heldBy('k-tides-a26')).map((t) => t.title);
  expect(new Set(titles).size).toBe(titles.length);
  await takeBack(id);
});

test('a refusal over the number of sections is told, and has its way round', async ({ page }) => {
  await onlyHabits('refusesSectionMismatch');
  const id = await bringExam('k-tides-a26-02');
  await page.goto(`${base}/transfers/${id}/send`);
  await expect(page.getByRole('alert')).toContainText(
    /source has 5 sections and this course 3.*Nothing has arrived/u,
  );
  await page.getByRole('button', { name: 'Resume with the course’s own sections' }).click();
  await expect(page.getByRole('link', { name: 'See what arrived' })).toBeVisible();
  await openArrival(page, id);
  await expect(page.getByTestId('verdict')).toHaveText(/nothing differs/u);
  await takeBack(id);
});

test('what can be set is mended at once, the rest is sent again or taken with a reason', async ({ page }) => {
  await onlyHabits('equalDates', 'nameless', 'landsByPosition', 'stripsFeedback');
  const id = await bringExam('k-tides-a26');
  await openArrival(page, id);
  await page.getByRole('button', { name: /Fix in course \(5\)/u }).click();
  await expect(notPlanned(page)).toContainText('2 differences to decide');
  await notPlanned(page).getByRole('button', { name: 'Accept…' }).click();
  await page.getByLabel('Why it is taken as it is').fill('Feedback is given in class.');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Everything is decided')).toBeVisible();
  await page.goto(`${base}/transfers/${id}/receipt`);
  await expect(page.getByTestId('receipt')).toContainText('Feedback is given in class.');
  await expect(page.getByTestId('receipt')).toContainText('2 accepted, 0 open');
  // Once the system has lost its habit, sending again brings what was stripped.
  await onlyHabits();
  await openArrival(page, id);
  await notPlanned(page).getByRole('button', { name: 'Reopen' }).first().click();
  await notPlanned(page)
    .getByRole('button', { name: /^Send missing and altered again/u })
    .click();
  await expect(page.getByTestId('verdict')).toHaveText(/nothing differs/u);
  expect((await heldBy('k-tides-a26')).filter((t) => t.title.startsWith('Final')).length).toBe(1);
  // A repeat finds all of it there.
  await command(id, { do: 'send' });
  await ended(id);
  expect((await heldBy('k-tides-a26')).filter((t) => t.title.startsWith('Final')).length).toBe(1);
  await takeBack(id);
});
