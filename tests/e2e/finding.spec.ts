import { expect, test } from './support/test.ts';
import { base, bring, expectAccessible, quiet } from './support/page.ts';
import { assessmentXml, PLAIN } from '../../demo/qti12.ts';
import { TIDAL_EXAM } from '../../demo/items.ts';

test('a newcomer finds the question about isogonals by its key, misspelt, with the keyboard alone', async ({
  page,
}) => {
  await page.goto(base);
  await expect(async () => {
    await page.keyboard.press('/');
    await expect(page.getByRole('combobox', { name: 'Search' })).toBeFocused({ timeout: 500 });
  }).toPass();
  await page.keyboard.type('isogonel');
  const results = page.getByRole('listbox', { name: 'Results' });
  const hit = results.getByRole('option', { name: /Name the line/u });
  await expect(hit).toContainText('key: isogonal');
  await expect(hit).toContainText(/in \d+ packages/u);
  await page.keyboard.press('ArrowDown');
  await expect(hit).toHaveAttribute('aria-selected', 'true');
  await expectAccessible(page, 'the search while typing');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('article')).toContainText('isogonal');
});

test('results are grouped, all of them have a page, and Escape closes', async ({ page }) => {
  await page.goto(base);
  const box = page.getByRole('combobox', { name: 'Search' });
  await box.click();
  await box.pressSequentially('tid');
  const results = page.getByRole('listbox', { name: 'Results' });
  for (const group of ['Quizzes and banks', 'Questions'])
    await expect(results.getByRole('group', { name: group })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(results).toBeHidden();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: '“tid”' })).toBeVisible();
  await page
    .getByRole('link', { name: /Tidal exam/u })
    .first()
    .click();
  await expect(page.getByRole('navigation', { name: 'Contents of the package' })).toBeVisible();
  await box.fill('zzzzz');
  await expect(results).toContainText('No matches for “zzzzz”. Try fewer words.');
});

test('the reading room is filtered by words, key, kind and points; numbers and address are kept', async ({
  page,
}) => {
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'pilotage-week5.imscc' }).first().click();
  const list = page.getByRole('listbox', { name: 'Items' });
  await expect(list.getByRole('option')).toHaveCount(12);
  await page.getByRole('button', { name: 'By kind, key…' }).click();
  await page.getByRole('searchbox', { name: 'Key holds' }).fill('isogon');
  await expect(list.getByRole('option')).toHaveCount(1);
  // It keeps the number it has in the quiz.
  await expect(list.getByRole('option').first()).toContainText(/^5/u);
  await expect(page.getByRole('article', { name: 'Item 5' })).toBeVisible();
  await expect(page).toHaveURL(/key=isogon/u);
  await page.reload();
  await expect(list.getByRole('option')).toHaveCount(1);
  await expect(page.getByRole('searchbox', { name: 'Key holds' })).toHaveValue('isogon');
  await page.getByRole('button', { name: 'Clear' }).click();
  await page.getByLabel('Points').selectOption('3');
  await expect(page).toHaveURL(/points=3/u);
  expect(await list.getByRole('option').count()).toBeLessThan(12);
  await expectAccessible(page, 'the filters of the reading room');
  await page.getByRole('searchbox', { name: 'Filter this list' }).fill('zzzz');
  await expect(page.getByText('No item matches. Clear a filter.')).toBeVisible();
});

test('a package in pictures: bars that have a size, with the same as a table', async ({ page }) => {
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'midterm-export.zip' }).first().click();
  await page.getByRole('button', { name: 'At a glance' }).click();
  const chart = page.getByRole('img', { name: /^Kinds of questions: one answer 20/u });
  await expect(chart.locator('path[fill="#7b4b2a"]').first()).toBeVisible();
  const bar = (await chart.locator('path[fill="#7b4b2a"]').first().boundingBox())!;
  expect(bar.width).toBeGreaterThan(40);
  await page.getByText('As a table').first().click();
  await expect(page.getByRole('cell', { name: /points$/u }).first()).toBeVisible();
  await expectAccessible(page, 'a package at a glance');
});

test('the desk says what waits, with its next step; what is thrown away comes back', async ({ page }) => {
  const xml = assessmentXml({ id: 'desk-quiz', title: 'Desk quiz', items: TIDAL_EXAM.slice(0, 2) }, PLAIN);
  await bring(page, 'desk-quiz.xml', new TextEncoder().encode(xml));
  await quiet(page);
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'desk-quiz.xml' }).click();
  // Pressing twice makes one draft.
  await page.getByRole('button', { name: 'Convert or send…' }).dblclick();
  await page.waitForURL(/transfers\/[0-9a-f-]+/u);
  await page.goto(base);
  const waits = page.getByRole('region', { name: /Waiting for you/u });
  const drafts = waits.getByRole('listitem').filter({ hasText: 'Desk quiz' });
  await expect(drafts).toHaveCount(1);
  await expect(drafts).toContainText('begun and not sent');
  await expect(drafts.getByRole('link', { name: /Continue/u })).toBeVisible();
  await page.goto(`${base}/transfers?state=draft`);
  await page.getByRole('button', { name: 'Throw away Desk quiz' }).click();
  await expect(page.getByText('Thrown away: Desk quiz')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Desk quiz', exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: 'Desk quiz', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Throw away Desk quiz' }).click();
  await expect(page.getByText('Thrown away: Desk quiz')).toBeVisible();
  await page.goto(`${base}/trash`);
  await expectAccessible(page, 'thrown away');
  await page.getByRole('button', { name: /Bring back.*Desk quiz/u }).click();
  await expect(page.getByText('Nothing was thrown away')).toBeVisible();
});

test('findings that are dealt with no longer wait', async ({ page }) => {
  const xml = `<assessmentItem xmlns="http://www.imsglobal.org/xsd/imsqti_v2p1" identifier="dealt" title="Dealt with" adaptive="false" timeDependent="false">
<responseDeclaration identifier="R" cardinality="single" baseType="identifier"><correctResponse><value>gone</value></correctResponse></responseDeclaration>
<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/>
<itemBody><p>Which?</p><choiceInteraction responseIdentifier="R" maxChoices="1" shuffle="false"><simpleChoice identifier="a">first</simpleChoice><simpleChoice identifier="b">second</simpleChoice></choiceInteraction></itemBody>
<responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/match_correct"/></assessmentItem>`;
  await bring(page, 'dealt.xml', new TextEncoder().encode(xml));
  const waits = page.getByRole('region', { name: /Waiting for you/u });
  const line = waits.getByRole('listitem').filter({ hasText: 'dealt.xml' });
  await line.getByRole('link', { name: /Go through them/u }).click();
  await page.getByRole('button', { name: 'Mark as dealt with' }).click();
  await expect(page.getByRole('button', { name: 'Not dealt with after all' })).toBeVisible();
  await page.goto(base);
  await expect(page.getByRole('region', { name: 'Came in' })).toContainText('dealt.xml');
  await expect(line).toHaveCount(0);
  await page.goto(`${base}/packages?show=findings`);
  await expect(page.getByRole('navigation', { name: 'Filter packages' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'dealt.xml' })).toHaveCount(0);
});
