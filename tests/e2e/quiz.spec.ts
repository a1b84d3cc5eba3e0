import { readFile } from 'node:fs/promises';
import mammoth from 'mammoth';
import { unzipSync } from 'fflate';
import { expect, test, type Page } from './support/test.ts';
import { zip } from '../../demo/zip.ts';
import { itemXml21, NS21, SCORE21, template21 } from '../support/read.ts';
import { base, bring, expectAccessible, openBrought } from './support/page.ts';

/** A quiz of a package: tried as a student sits it, what its draws make of it, its versions on paper. */

async function quizPage(page: Page, name: string, quiz: string, view: string): Promise<string> {
  const all = (await (await fetch(`${base}/api/packages`)).json()) as { id: string; name: string }[];
  const address = `${base}/packages/${all.find((p) => p.name === name)!.id}/quizzes/${quiz}/${view}`;
  await page.goto(address);
  return address;
}

test('a student sits a drawn quiz: leaves, comes back to the answers, hands in, and reads the review', async ({
  page,
}) => {
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'midterm-export.zip' }).first().click();
  await page.getByRole('button', { name: /Navigation midterm/u }).click();
  await page.getByRole('link', { name: 'Try the quiz' }).click();
  await expect(page.getByText('Five questions are drawn for you.')).toBeVisible();
  await page.getByLabel('Candidate, any text').fill('Seat 7');
  await page.getByRole('button', { name: 'Begin' }).click();
  const questions = page.getByRole('navigation', { name: 'Questions' });
  await expect(questions.getByRole('button')).toHaveCount(17);
  await expect(page.getByRole('timer')).toContainText(/^59:|^60:/u);
  await expectAccessible(page, 'a question of a sitting');

  // By keyboard: a word, then on to the next.
  await page.getByRole('textbox', { name: 'Your answer' }).fill('isogonal');
  await page.getByRole('button', { name: 'Next' }).press('Enter');
  await expect(page.getByRole('heading', { name: 'Question 2 of 17' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Your answer' }).fill('208');
  await expect(questions.getByRole('button', { name: /^2 .*answered$/u })).toBeVisible();

  await page.goto(`${base}/packages`);
  await page.goBack();
  await expect(page.getByRole('heading', { name: 'Question 2 of 17' })).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Your answer' })).toHaveValue('208');
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Your answer' })).toHaveValue('isogonal');

  await questions.getByRole('button', { name: /^3 .*open$/u }).click();
  await page.getByRole('radio', { name: 'False' }).check();
  await page.getByRole('button', { name: 'Hand everything in' }).click();
  await expect(page.getByText('14 questions are not answered.')).toBeVisible();
  await page.getByRole('button', { name: 'Hand in all the same' }).click();

  // 1 for the word, 2 for the course, nothing for a mile that is not one.
  await expect(page.getByTestId('sitting-total')).toContainText('3 of');
  const third = page.getByRole('article').nth(2);
  await expect(third).toContainText('Answer False');
  await expect(third).toContainText('Key True');
  await expect(third).toContainText('0 of 1');
  await third.getByRole('button', { name: 'Show the question' }).click();
  await expect(third.getByRole('radio', { name: 'False' })).toBeChecked();
  await expectAccessible(page, 'the review of a sitting');
  await page.getByRole('button', { name: 'Begin anew' }).click();
  await expect(page.getByRole('button', { name: 'Begin', exact: true })).toBeVisible();
});

const single = (id: string): string =>
  itemXml21(
    id,
    `<responseDeclaration identifier="RESPONSE" cardinality="single" baseType="identifier"><correctResponse><value>a</value></correctResponse></responseDeclaration>${SCORE21}<outcomeDeclaration identifier="TOLD" cardinality="single" baseType="identifier"/><itemBody><p>Question ${id}</p><choiceInteraction responseIdentifier="RESPONSE" maxChoices="1"><simpleChoice identifier="a">right ${id}</simpleChoice><simpleChoice identifier="b">wrong ${id}</simpleChoice></choiceInteraction></itemBody><responseProcessing><responseCondition><responseIf><match><variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></match><setOutcomeValue identifier="SCORE"><baseValue baseType="float">1</baseValue></setOutcomeValue></responseIf><responseElse><setOutcomeValue identifier="TOLD"><baseValue baseType="identifier">w</baseValue></setOutcomeValue></responseElse></responseCondition></responseProcessing><modalFeedback outcomeIdentifier="TOLD" identifier="w" showHide="show">Look again at ${id}.</modalFeedback>`,
  );
const OneByOne = {
  'one.xml': single('one'),
  'two.xml': single('two'),
  'three.xml': single('three').replace(
    /<responseProcessing>.*<\/modalFeedback>/su,
    template21('match_correct'),
  ),
  'test.xml': `<assessmentTest ${NS21} identifier="t" title="One by one"><testPart identifier="p" navigationMode="linear" submissionMode="individual"><itemSessionControl maxAttempts="2" showFeedback="true"/><assessmentSection identifier="s" title="S" visible="true"><assessmentItemRef identifier="one" href="one.xml"/><assessmentItemRef identifier="two" href="two.xml"><preCondition><gt><variable identifier="one.SCORE"/><baseValue baseType="float">0</baseValue></gt></preCondition></assessmentItemRef><assessmentItemRef identifier="three" href="three.xml"/></assessmentSection></testPart></assessmentTest>`,
};

test('one by one: feedback at once, a second attempt, the score moves, and a condition opens a question', async ({
  page,
}) => {
  await bring(page, 'one-by-one.zip', zip(OneByOne));
  await openBrought(page, 'one-by-one.zip');
  await page.getByRole('button', { name: /One by one/u }).click();
  await page.getByRole('link', { name: 'Try the quiz' }).click();
  await page.getByRole('button', { name: 'Begin' }).click();
  const questions = page.getByRole('navigation', { name: 'Questions' });
  await expect(questions.getByRole('button')).toHaveCount(2);
  await page.getByRole('radio', { name: 'wrong one' }).check();
  await page.getByRole('button', { name: 'Hand in this answer' }).click();
  await expect(page.getByText('Look again at one.')).toBeVisible();
  await expect(page.getByText('1 attempt left')).toBeVisible();
  await expect(page.getByTestId('so-far')).toContainText('0 of');
  await page.getByRole('radio', { name: 'right one' }).check();
  await page.getByRole('button', { name: 'Hand in this answer' }).click();
  await expect(page.getByText('No further answer counts.')).toBeVisible();
  await expect(page.getByTestId('so-far')).toContainText('1 of');
  // What the first answer opened; and there is no way back.
  await expect(questions.getByRole('button')).toHaveCount(3);
  await page.getByRole('button', { name: 'Next' }).click();
  await expect(page.getByRole('paragraph').filter({ hasText: 'Question two' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Back', exact: true })).toHaveCount(0);
  await expect(questions.getByRole('button', { name: /^1/u })).toBeDisabled();
});

test('what students get: figures that were counted, pictures that are seen, questions met twice', async ({
  page,
}) => {
  await quizPage(page, 'exercises-week6.zip', 'exercises-week6', 'draws');
  const facts = page.getByTestId('fairness');
  await expect(facts).toContainText('14 points for everybody');
  await expect(facts).toContainText('exactly, over all draws');
  // A third of each of seven exercises.
  await expect(facts).toContainText('2.3 of 7 on average');
  await expect(page.getByText('33 %').first()).toBeVisible();

  await quizPage(page, 'midterm-export.zip', 'midterm', 'draws');
  await expect(page.getByText('Not everybody can reach the same')).toBeVisible();
  const chart = page.getByRole('img', { name: /^Points one can reach: on average 25\.3 points/u });
  await expect(chart.locator('svg')).toBeVisible();
  const bars = chart.locator('svg path[fill]');
  await expect.poll(() => bars.count()).toBeGreaterThan(3);
  expect((await chart.boundingBox())!.height).toBeGreaterThan(100);
});

test('versions: a table of what stands where, papers that print, documents and packages', async ({
  page,
}) => {
  await quizPage(page, 'exercises-week6.zip', 'exercises-week6', 'versions');
  await expect(page.getByTestId('version-table').getByRole('row')).toHaveCount(8);
  await page.getByLabel('Versions', { exact: true }).fill('3');
  await page.getByLabel('Seed, any text').fill('row 1');
  await page.getByRole('button', { name: 'Make them' }).click();
  await expect(page.getByRole('columnheader', { name: 'Version C 14 points' })).toBeVisible();
  await expect(page.getByRole('row', { name: /^A and B/u })).toContainText('0, the least there can be');
  await page.getByLabel('Course').fill('Coastal navigation');
  await expectAccessible(page, 'versions of a quiz');

  const [paper] = await Promise.all([
    page.context().waitForEvent('page'),
    page.getByRole('link', { name: 'Paper to print, version B' }).click(),
  ]);
  await expect(paper.getByRole('heading', { name: 'Exercises of week 6', exact: true })).toBeVisible();
  await expect(paper.getByText('Coastal navigation').first()).toBeVisible();
  await expect(paper.locator('.question')).toHaveCount(7);
  // Each question is seen, and kept whole where it is printed.
  for (const question of await paper.locator('.question').all())
    expect((await question.boundingBox())!.height).toBeGreaterThan(20);
  expect(
    await paper
      .locator('.question')
      .first()
      .evaluate((e) => getComputedStyle(e).breakInside),
  ).toBe('avoid');
  // Nothing runs in the page of a paper, the check neither: it looks at the same page by itself.
  const html = await (await page.request.get(paper.url())).text();
  await paper.close();
  const alone = await page.context().newPage();
  await alone.setContent(html);
  await expectAccessible(alone, 'a paper');
  await alone.close();

  const saved = async (name: string): Promise<Uint8Array> => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name }).click(),
    ]);
    return new Uint8Array(await readFile(await download.path()));
  };
  const key = await saved('Key as docx, version C');
  const { value } = await mammoth.extractRawText({ buffer: Buffer.from(key) });
  expect(value).toContain('Key: Exercises of week 6');
  const packages = unzipSync(await saved('Download them'));
  expect(Object.keys(packages).sort()).toEqual([
    'version-A.zip',
    'version-B.zip',
    'version-C.zip',
    'versions.csv',
  ]);
});
