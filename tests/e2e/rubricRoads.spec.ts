import { expect, test, type Page } from './support/test.ts';
import { carryAcross } from '../../demo/fill.ts';
import type { Habit } from '../../standins/habits.ts';
import { courseId, ended, heldBy, onlyHabits, openArrival, takeBack } from './support/courses.ts';
import { base, expectAccessible } from './support/page.ts';

const notPlanned = (page: Page) => page.getByRole('region', { name: 'Differences' });
const rubrics = (page: Page) => page.getByRole('region', { name: 'Rubrics, planned and arrived' });
/** The quiz of the passage plan, whose essay is graded by a rubric, into this term's course. */
const bringPassage = async (to: string): Promise<string> =>
  carryAcross(
    base,
    await courseId('k-coast-s26'),
    await courseId(to),
    (t) => t.title === 'Passage plan' && t.kind === 'quiz',
  );
async function openRubrics(page: Page, id: string): Promise<void> {
  await openArrival(page, id);
  await page.getByRole('button', { name: /^1 rubric/u }).click();
}

/**
 * What the arrival check says of each habit, how the criteria hold together, and whether a new rubric mends
 * it.
 */
const CAUGHT: readonly [habit: Habit, says: RegExp, seam: string][] = [
  ['locksRubrics', /Passage plan, lock.*can be edited.*locked, nobody can edit it/su, '4 intact'],
  [
    'losesAttachments',
    /Passage plan, attachment.*attached to “Passage plan, harbour to harbour”.*not attached/su,
    '4 intact',
  ],
  [
    'dropsLevelTexts',
    /Passage plan \(rubric\), levels.*Every leg has waypoint.*found.*Complete, 3/su,
    '4 altered',
  ],
  ['roundsPoints', /Passage plan \(rubric\), levels.*Usable, 1\.5.*found.*Usable, 2/su, '1 altered'],
];

for (const [habit, says, seam] of CAUGHT)
  test(`with rubrics, the habit ${habit} is caught, shown side by side, and mended by a new one`, async ({
    page,
  }) => {
    await onlyHabits(habit);
    const id = await bringPassage('k-coast-a26');
    await openRubrics(page, id);
    await expect(notPlanned(page)).toContainText(says);
    await expect(rubrics(page)).toContainText(seam);
    if (habit === 'roundsPoints') {
      await expect(rubrics(page).getByTestId('effect')).toContainText(
        '16.5 of 16.5 at the left, 17 of 17 at the right',
      );
      await expectAccessible(page, 'rubrics on arrival');
    }
    const anew = notPlanned(page).getByRole('button', { name: 'Recreate in course' });
    const asked = page.waitForResponse((r) => r.url().endsWith('/do'));
    await anew.first().click();
    await asked;
    await ended(id);
    await expect(anew).toHaveCount(0);
    await expect(rubrics(page)).toContainText('4 intact');
    const held = (await heldBy('k-coast-a26')).filter((t) => t.kind === 'rubric');
    expect(held.map((t) => t.title)).toEqual(['Passage plan']);
    await takeBack(id);
    expect((await heldBy('k-coast-a26')).filter((t) => t.kind === 'rubric')).toEqual([]);
  });

test('a rubric goes from a spreadsheet to a course, from there to another system onto an essay, and back intact', async ({
  page,
}) => {
  await onlyHabits();
  // From the spreadsheet, alone.
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'passage-plan.csv' }).first().click();
  await page.getByRole('link', { name: 'Bring into a course…' }).click();
  await page.getByLabel('Find the destination').fill('coastal autumn 01');
  await page
    .getByRole('button', { name: /Coastal Navigation NAV 101, section 01 Autumn 2026 Quayside/u })
    .click();
  await page.getByRole('button', { name: 'Open and choose what to include' }).click();
  await expect(page.getByRole('checkbox', { name: 'Rubric Passage plan' })).toBeVisible();
  await page.getByRole('button', { name: 'Everything' }).click();
  await page.getByRole('link', { name: 'Next: Forecast' }).click();
  await page.getByRole('link', { name: 'Next: Landing' }).click();
  await expect(page.getByText('not attached')).toBeVisible();
  await page.getByRole('link', { name: 'Next: Send' }).click();
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('link', { name: 'See what arrived' }).click();
  await expect(page.getByTestId('verdict')).toHaveText(/nothing differs/u);

  // From there to the other system, attached to an essay that stands there.
  const there = await courseId('f-coast-a26');
  await page.goto(
    `${base}/bring?from=${encodeURIComponent(await courseId('k-coast-a26'))}&to=${encodeURIComponent(there)}`,
  );
  await page.getByRole('button', { name: 'Open and choose what to include' }).click();
  await page.getByRole('button', { name: 'Everything' }).click();
  await page.getByRole('link', { name: 'Next: Forecast' }).click();
  await page.getByRole('link', { name: 'Next: Landing' }).click();
  await page
    .getByLabel('Attach Passage plan to')
    .selectOption({ label: 'A coastal passage by night (16.5 points)' });
  await expect(
    page.getByRole('button', { name: 'Do not attach Passage plan to A coastal passage by night' }),
  ).toBeVisible();
  await page.getByRole('link', { name: 'Next: Send' }).click();
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('link', { name: 'See what arrived' }).click();
  await expect(page.getByTestId('verdict')).toHaveText(/nothing differs/u);

  // Back with the essay: the quiz brings its rubric, which is there already, and hangs on what came.
  const back = await carryAcross(base, there, await courseId('k-coast-a26'), (t) => t.kind === 'quiz');
  await page.goto(`${base}/transfers/${back}/contents`);
  await expect(page.getByText('is graded by it')).toBeVisible();
  await openRubrics(page, back);
  await expect(rubrics(page)).toContainText('4 intact');
  await page.goto(`${base}/transfers/${back}/receipt`);
  await expect(page.getByTestId('receipt')).toContainText(
    'Passage plan: intact, 4 criteria, 16.5 points; grades A coastal passage by night',
  );
  await expect(page.getByTestId('receipt')).toContainText('0 accepted, 0 open');

  // What is there is listed with what it grades.
  await page.goto(`${base}/courses/${encodeURIComponent(there)}`);
  await page.getByRole('link', { name: 'Passage plan' }).click();
  await expect(page.getByText(/grades A coastal passage by night/u)).toBeVisible();
});

test('the rubric of an assignment hangs there on the one of that name, or on another that is chosen', async ({
  page,
}) => {
  await onlyHabits();
  const from = encodeURIComponent(await courseId('k-lights-a25'));
  const land = async (to: string): Promise<void> => {
    await page.goto(`${base}/bring?from=${from}&to=${encodeURIComponent(await courseId(to))}`);
    await page.getByRole('button', { name: 'Open and choose what to include' }).click();
    await expect(page.getByText('grades the assignment “Log of a night watch”')).toBeVisible();
    await page.getByRole('checkbox', { name: 'Rubric Night watch log' }).check();
    await page.getByRole('link', { name: 'Next: Forecast' }).click();
    await page.getByRole('link', { name: 'Next: Landing' }).click();
  };
  await land('k-lights-a26');
  await expect(
    page.getByRole('button', { name: 'Do not attach Night watch log to Log of a night watch' }),
  ).toBeVisible();
  await expect(
    page.getByText('The rubric is worth 12 points, “Log of a night watch” there 10.'),
  ).toBeVisible();
  await page.getByRole('link', { name: 'Next: Send' }).click();
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('link', { name: 'See what arrived' }).click();
  await expect(page.getByTestId('verdict')).toHaveText(/nothing differs/u);
  await page.goto(page.url().replace(/arrival.*$/u, 'receipt'));
  await expect(page.getByTestId('receipt')).toContainText(
    'Night watch log: intact, 3 criteria, 12 points; grades Log of a night watch',
  );
  // It is worth more than the assignment there, which is said where the rubric is seen.
  await page.goto(`${base}/rubrics`);
  await page
    .getByRole('listitem')
    .filter({ hasText: 'section 03, Autumn 2026' })
    .getByRole('link', { name: 'Night watch log' })
    .click();
  await expect(page.getByText(/12 points.*Log of a night watch.*10/u)).toBeVisible();

  await land('f-coast-a26');
  await expect(
    page.getByText(
      'It grades the assignment “Log of a night watch” in the source; none there has that name.',
    ),
  ).toBeVisible();
  await page.getByLabel('Attach Night watch log to').selectOption({ label: 'Evening watch (12 points)' });
  const hangs = page.getByRole('button', { name: 'Do not attach Night watch log to Evening watch' });
  await hangs.click();
  await expect(page.getByText('not attached')).toBeVisible();
  await page.getByLabel('Attach Night watch log to').selectOption({ label: 'Evening watch (12 points)' });
  await expect(hangs).toBeVisible();
  await expectAccessible(page, 'a rubric for an assignment');
  await page.getByRole('link', { name: 'Next: Send' }).click();
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('link', { name: 'See what arrived' }).click();
  await expect(page.getByTestId('verdict')).toHaveText(/nothing differs/u);
});

test('a rubric left behind is said where it is missed, and a second copy of every rubric is seen and taken out', async ({
  page,
}) => {
  await onlyHabits('appendsRubrics');
  // The course holds a rubric by now: another one brings a second copy of that.
  await page.request.post(`${base}/api/rubrics`, { headers: { Origin: base }, data: { do: 'new' } });
  await page.goto(`${base}/rubrics`);
  await page.getByRole('checkbox', { name: 'New rubric, made here' }).first().check();
  await page.getByRole('button', { name: 'Bring 1 rubric into a course…' }).click();
  await page.getByLabel('Find the destination').fill('coastal autumn 01');
  await page
    .getByRole('button', { name: /Coastal Navigation NAV 101, section 01 Autumn 2026 Quayside/u })
    .click();
  await page.getByRole('button', { name: 'Open and choose what to include' }).click();
  await page.getByRole('button', { name: 'Everything' }).click();
  await page.getByRole('link', { name: 'Next: Forecast' }).click();
  await page.getByRole('link', { name: 'Next: Landing' }).click();
  await page.getByRole('link', { name: 'Next: Send' }).click();
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('link', { name: 'See what arrived' }).click();
  const extra = notPlanned(page).getByRole('listitem').filter({ hasText: 'Passage plan, not in the plan' });
  await onlyHabits();
  await extra.getByRole('button', { name: 'Remove from course' }).click();
  await expect(extra).toHaveCount(0);
  const held = (await heldBy('k-coast-a26')).filter((t) => t.kind === 'rubric');
  expect(held.map((t) => t.title).sort()).toEqual(['New rubric', 'Passage plan']);

  const left = await bringPassage('f-coast-a26');
  await page.goto(`${base}/transfers/${left}/contents`);
  await page.getByRole('checkbox', { name: 'Rubric Passage plan' }).click();
  await expect(page.getByText('arrives without a rubric to grade it by')).toBeVisible();
  await page.getByRole('button', { name: 'Bring the rubric after all' }).click();
  await expect(page.getByText('is graded by it')).toBeVisible();
});

test('where a rubric is attached is chosen on its own page, and it arrives ticked', async ({ page }) => {
  await onlyHabits();
  await page.goto(`${base}/rubrics`);
  await page.locator('li', { hasText: 'passage-plan.csv' }).getByRole('link').click();
  await page.getByText('Attach in a course…').click();
  await page.getByLabel('Course').selectOption(await courseId('k-lights-a26'));
  await page.getByRole('checkbox', { name: /Log of a night watch/u }).check();
  await expectAccessible(page, 'a rubric to be attached');
  await page.getByRole('button', { name: 'Next: Landing' }).click();
  await expect(
    page.getByRole('button', { name: /^Do not attach .* to Log of a night watch/u }),
  ).toBeVisible();
  await page
    .getByRole('link', { name: /Contents/u })
    .first()
    .click();
  await expect(page.getByRole('checkbox', { name: /^Rubric/u })).toBeChecked();
});
