import { expect, test, type Page } from './support/test.ts';
import { zip } from '../../demo/zip.ts';
import { harbourChart } from '../../demo/pictures.ts';
import { ASKED, ASKED_QUIZ, CHART } from '../support/asked.ts';
import { bring, expectAccessible, openBrought, taken } from './support/page.ts';

/** What only a person can put right, and what is changed of one part of a thing alone. */

async function opened(page: Page, name: string): Promise<void> {
  const bytes = zip({ ...ASKED, 'quiz.xml': `${ASKED_QUIZ}<!-- ${name} -->`, [CHART]: harbourChart() });
  await bring(page, name, bytes);
  await openBrought(page, name);
  await expect(page.getByRole('option')).toHaveCount(4);
}
const open = (page: Page, n: number): Promise<void> => page.getByRole('option').nth(n).click();

test('what is right is asked of a person: of choices, a word, a number and one of two blanks', async ({
  page,
}) => {
  await opened(page, 'asked.zip');
  const article = page.getByRole('article');
  const asked = article.getByTestId('asked');

  await open(page, 0);
  await expect(article).toContainText('No answer scores');
  await asked.getByRole('button', { name: 'Say what is right…' }).click();
  await expect(asked.getByRole('button', { name: 'Put right' })).toBeDisabled();
  await asked.getByRole('radio', { name: 'Port' }).check();
  await expectAccessible(page, 'a finding that asks what is right');
  await asked.getByRole('button', { name: 'Put right' }).click();
  await taken(page, 1);
  await expect(article).not.toContainText('No answer scores');
  await expect(article.getByRole('rowheader').first()).toHaveText('Port');

  await open(page, 1);
  await asked.getByRole('button', { name: 'Say what is right…' }).click();
  await asked.getByLabel('Accepted, several apart by |').fill('bow | prow');
  await asked.getByRole('button', { name: 'Put right' }).click();
  await taken(page, 2);
  await expect(article.getByText('prow').first()).toBeVisible();

  await open(page, 2);
  await asked.getByRole('button', { name: 'Say what is right…' }).click();
  await asked.getByLabel('The right number').fill('four');
  await expect(asked.getByRole('button', { name: 'Put right' })).toBeDisabled();
  await asked.getByLabel('The right number').fill('240');
  await asked.getByLabel('The right number').press('Enter');
  await taken(page, 3);
  await expect(article.getByRole('rowheader').first()).toContainText('240');

  await open(page, 3);
  await expect(article).toContainText('Nothing is accepted in blank 2; the others score.');
  await asked.getByRole('button', { name: 'Say what is right…' }).click();
  await asked.getByLabel('Accepted, several apart by |').fill('stern');
  await asked.getByRole('button', { name: 'Put right' }).click();
  await taken(page, 4);
  await expect(article).not.toContainText('Nothing is accepted in blank 2');
  // Of one point, each blank gives half.
  await expect(article.getByRole('heading', { level: 2 })).toContainText('1 point');
  await article.getByRole('button', { name: 'Try it' }).click();
  await article.getByRole('textbox').nth(1).fill('STERN');
  await article.getByRole('button', { name: 'Score it' }).click();
  await expect(article.getByRole('status')).toHaveText('0.5 of 1 points');
});

test('what is right can be typed where the item is changed; one text alone goes back to as it came', async ({
  page,
}) => {
  await opened(page, 'parts.zip');
  await open(page, 1);
  await page.getByRole('button', { name: 'Change it' }).click();
  const change = page.getByTestId('change');
  await change.getByLabel('Accept another').fill('bow');
  await change.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(change.getByTestId('scoring-now').getByRole('rowheader').first()).toHaveText('bow');
  await change.getByRole('textbox', { name: 'Title' }).fill('In front');
  const question = change.getByRole('textbox', { name: 'Question', exact: true });
  await question.getByText('The front of a ship').click();
  await page.keyboard.press('Home');
  await page.keyboard.type('Said on board: ');
  await expect(change.getByRole('status')).toHaveText('Kept');
  await taken(page, 3);

  // The text alone goes back; the title and what is accepted stay as they were changed.
  await change.getByRole('button', { name: 'Question: as it came' }).click();
  await expect(question).not.toContainText('Said on board');
  await expect(change.getByRole('textbox', { name: 'Title' })).toHaveValue('In front');
  await expect(change.getByLabel('Accepted 1', { exact: true })).toHaveValue('bow');
  await taken(page, 2);
  await expect(change.getByRole('button', { name: 'Question: as it came' })).toHaveCount(0);
  await expectAccessible(page, 'an item of which parts were changed');
  await change.getByRole('button', { name: 'Title: as it came' }).click();
  await expect(change.getByRole('textbox', { name: 'Title' })).toHaveValue('Item word');
  await change.getByRole('button', { name: 'What is right: as it came' }).click();
  await expect(change.getByLabel('Accepted 1', { exact: true })).toHaveCount(0);
  await expect(page.getByText('As it came; nothing changed')).toBeVisible();
});

test('weights of a quiz, and files of other names; the list of packages says that something was changed', async ({
  page,
}) => {
  await opened(page, 'names.zip');
  await page.getByRole('button', { name: 'On board' }).click();
  await page.getByRole('button', { name: 'Change the quiz…' }).click();
  const panel = page.getByTestId('quiz-panel');
  const words = panel.getByRole('group', { name: 'Section 2' });
  await words.getByLabel('How many times item 3 counts').fill('2');
  await words.getByLabel('How many times item 3 counts').press('Tab');
  await taken(page, 1);
  await expect(words.getByLabel('How many times item 3 counts')).toHaveValue('2');
  await expectAccessible(page, 'a quiz that is changed');

  await page.getByRole('button', { name: /^Images/u }).click();
  const files = page.getByRole('region', { name: 'Details' });
  await files.getByRole('button', { name: `Rename… ${CHART}` }).click();
  const name = files.getByRole('textbox', { name: `Another name for ${CHART}` });
  await expect(name).toBeFocused();
  await name.fill('img/ría 2.png');
  await name.press('Enter');
  await expect(files.getByRole('cell', { name: 'img/ría 2.png', exact: true })).toBeVisible();
  await taken(page, 2);
  await files.getByRole('button', { name: 'Give 1 file a plain name, without blanks or accents' }).click();
  await expect(files.getByRole('cell', { name: 'img/ria-2.png', exact: true })).toBeVisible();
  await expectAccessible(page, 'files that can be renamed');

  // The picture is shown under its new name.
  await page.getByRole('button', { name: 'All items' }).click();
  await open(page, 0);
  const picture = page.getByRole('article').getByRole('img', { name: 'The ría' });
  await expect.poll(async () => (await picture.boundingBox())?.width ?? 0).toBeGreaterThan(50);
  expect(await picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0);

  // The quiz, the item that counts otherwise in it, and the one with the picture.
  await page.goto(new URL('/packages', page.url()).href);
  await expect(page.getByRole('row', { name: /names\.zip/u })).toContainText('3 changed');
});
