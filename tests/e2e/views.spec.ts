import { readdirSync } from 'node:fs';
import { join, sep } from 'node:path';
import { expect, test, waitingPage, type Page } from './support/test.ts';
import { demo } from './support/demo.ts';
import { base, expectAccessible } from './support/page.ts';

const STAGES = ['source', 'contents', 'forecast', 'landing', 'send', 'arrival', 'receipt'] as const;

/** Every page of the application, by its route, with addresses that show it in its different states. */
const VIEWS: Readonly<Record<string, readonly [what: string, path: () => string | Promise<string>][]>> = {
  '/': [['desk', () => '/']],
  '/packages': [
    ['packages', () => '/packages'],
    ['packages with findings', () => '/packages?show=findings'],
  ],
  '/packages/[id]': [
    ['reading room', () => packagePath('midterm-export.zip')],
    ['findings', async () => `${await packagePath('midterm-export.zip')}?in=findings:decide`],
    ['a package at a glance', async () => `${await packagePath('pilotage-week5.imscc')}?in=facts`],
    ['a file of rubrics', () => packagePath('passage-plan.csv')],
  ],
  '/packages/[id]/quizzes/[quiz]/[view=quizView]': [
    ['a quiz to try', async () => `${await packagePath('midterm-export.zip')}/quizzes/midterm/try`],
    ['what students get', async () => `${await packagePath('midterm-export.zip')}/quizzes/midterm/draws`],
    ['versions of a quiz', async () => `${await packagePath('midterm-export.zip')}/quizzes/midterm/versions`],
  ],
  '/packages/[id]/document': [
    ['a document beside its questions', async () => `${await packagePath('chartwork-resit.docx')}/document`],
  ],
  '/libraries': [['publishers’ libraries', () => '/libraries']],
  '/libraries/[id]': [
    ['a library', async () => libraryPath()],
    ['a book of a library', async () => `${await libraryPath()}?book=coastal-pilotage-2`],
  ],
  '/packages/together': [
    [
      'files that came in together',
      async () => {
        const names = ['chartwork-resit.docx', 'midterm-export.zip', 'every-kind.zip'];
        const paths = await Promise.all(names.map(packagePath));
        return `/packages/together?ids=${paths.map((p) => p.split('/').at(-1)).join(',')}`;
      },
    ],
  ],
  '/packages/[id]/sheet': [
    ['a sheet', async () => `${await packagePath('midterm-export.zip')}/sheet`],
    ['a sheet of a quiz', async () => `${await packagePath('pilotage-week5.imscc')}/sheet`],
  ],
  '/courses': [['courses', () => '/courses']],
  '/courses/[id]': [['a course', () => `/courses/${encodeURIComponent(demo().course)}`]],
  '/bring': [
    ['where to', () => '/bring?q=tides'],
    ['where from', () => `/bring?to=${encodeURIComponent(demo().course)}`],
  ],
  '/systems': [['systems', () => '/systems']],
  '/rubrics': [['rubrics', () => '/rubrics']],
  '/rubrics/[place]/[rubric]': [['a rubric', () => rubricPath()]],
  '/rubrics/table': [['a table to paste', () => '/rubrics/table']],
  '/rules': [['reading rules', () => '/rules']],
  '/transfers': [
    ['transfers', () => '/transfers'],
    ['no transfer of a state', () => '/transfers?state=stopped'],
  ],
  '/banks': [['banks', () => '/banks']],
  '/banks/[id]': [['a bank of one’s own', () => made('bank')]],
  '/quizzes': [['quizzes made here', () => '/quizzes']],
  '/quizzes/[id]': [['a quiz being made', () => made('quiz')]],
  '/transfers/[id]/both/[quiz]': [['both sides', () => bothPath()]],
  '/transfers/[id]/[[stage=stage]]': STAGES.flatMap((stage): [string, () => string][] => [
    [`${stage} of a file`, () => `/transfers/${demo().transfer}/${stage}`],
    [`${stage} between courses`, () => `/transfers/${demo().courseTransfer}/${stage}`],
  ]),
  '/batches/new': [['a batch to begin', () => '/batches/new?from=Spring%202026&to=Autumn%202026']],
  // Needs a batch that was sent; looked at where one is, in courses.spec.ts.
  '/batches/[id]': [],
  '/find': [
    ['results', () => '/find?q=twelfths'],
    ['no results', () => '/find?q=zzzz'],
  ],
  '/trash': [['thrown away', () => '/trash']],
  '/help': [['help', () => '/help']],
};

async function packagePath(name: string): Promise<string> {
  const all = (await (await fetch(`${base}/api/packages`)).json()) as { id: string; name: string }[];
  return `/packages/${all.find((p) => p.name === name)!.id}`;
}
async function libraryPath(): Promise<string> {
  const [first] = (await (await fetch(`${base}/api/libraries`)).json()) as { id: string }[];
  return `/libraries/${first!.id}`;
}
/** Begins a quiz or a bank, as its list does. */
async function made(kind: 'quiz' | 'bank'): Promise<string> {
  const response = await fetch(`${base}/api/made`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Origin: base },
    body: JSON.stringify({ do: kind, title: 'To be looked at' }),
  });
  const { id } = (await response.json()) as { id: string };
  return `/${kind === 'quiz' ? 'quizzes' : 'banks'}/${id}`;
}
async function bothPath(): Promise<string> {
  const html = await (await fetch(`${base}/transfers/${demo().transfer}/arrival`)).text();
  return /href="(\/transfers\/[^"]+\/both\/[^"]+)"/u.exec(html)![1]!;
}
async function rubricPath(): Promise<string> {
  const html = await (await fetch(`${base}/rubrics`)).text();
  return /href="(\/rubrics\/[^"/]+\/[^"]+)"/u.exec(html)![1]!;
}

test('every page of the application is among the views', () => {
  const folder = join(import.meta.dirname, '../../src/routes');
  const pages = readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((path) => path.endsWith('+page.svelte'))
    .map((path) => `/${path.split(sep).slice(0, -1).join('/')}`);
  expect(pages.sort()).toEqual(Object.keys(VIEWS).sort());
});

/** From the widest, in which pages are opened, to a phone's. */
const SIZES = [
  { width: 1280, height: 800 },
  { width: 1024, height: 768 },
  { width: 390, height: 844 },
] as const;

/** The theme is changed as people change it, without loading the page again. */
async function theme(page: Page, now: 'Dark' | 'Light'): Promise<void> {
  await page.getByRole('button', { name: `${now} theme` }).click();
  await expect(
    page.getByRole('button', { name: `${now === 'Dark' ? 'Light' : 'Dark'} theme` }),
  ).toBeVisible();
}

test.describe('each view', () => {
  // In one window, one after the other: the first page of a window takes longer than the next ten.
  let page: Page;
  test.beforeAll(async ({ browser }) => {
    page = waitingPage(await browser.newPage());
  });
  test.afterAll(() => page.close());

  for (const [what, path] of [
    ...Object.values(VIEWS).flat(),
    ['no such page', () => '/nowhere'] as [string, () => string],
  ])
    test(`${what} fits at every width, and has no accessibility violations, wide and light or narrow and dark`, async () => {
      await page.setViewportSize(SIZES[0]);
      await page.goto(base + (await path()));
      await page.waitForLoadState('networkidle').catch(() => undefined);
      await expectAccessible(page, `${what}, wide and light`);
      for (const size of SIZES) {
        await page.setViewportSize(size);
        expect(
          await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth),
          `${what} fits ${size.width}`,
        ).toBe(true);
      }
      // Colours are those of the theme, whatever the width; what stands there is that of the width, whatever the theme.
      await theme(page, 'Dark');
      await expectAccessible(page, `${what}, narrow and dark`);
      await theme(page, 'Light');
    });
});

for (const theme of ['light', 'dark'] as const)
  test(`the reading room has no accessibility violations (${theme})`, async ({ page }) => {
    await page.addInitScript((t) => localStorage.setItem('theme', t), theme);
    await page.goto(`${base}/packages`);
    for (const name of ['pilotage-week5.imscc', 'midterm-export.zip']) {
      await page.goto(`${base}/packages`);
      await page.getByRole('link', { name }).first().click();
      await expect(page.getByRole('article')).toBeVisible();
      await expectAccessible(page, name);
      await page.getByRole('button', { name: 'Try it' }).click();
      await expectAccessible(page, `${name}, trying`);
    }
    for (const place of ['To decide', 'Noted on reading']) {
      await page.getByRole('button', { name: new RegExp(place, 'u') }).click();
      await expectAccessible(page, place);
    }
  });

test('an unfolded difference, the keys and a filter have no accessibility violations', async ({ page }) => {
  await page.goto(`${base}/transfers/${demo().transfer}/arrival`);
  const list = page.getByRole('tree', { name: 'Items side by side' });
  await list.focus();
  await page.keyboard.press('n');
  await page.keyboard.press('n');
  await expect(page.getByText('tolerance changed').first()).toBeVisible();
  await expect(page.getByText('Answer 3.2: 3 points')).toBeVisible();
  await expectAccessible(page, 'unfolded');
  await page.getByRole('button', { name: /missing/u }).click();
  await expect(page.getByRole('treeitem')).toHaveCount(1);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toBeVisible();
  await expectAccessible(page, 'keys');
});

test('works at 1024 wide, and reading and arrival on a phone', async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 768 });
  for (const path of [
    '/',
    '/packages',
    `/transfers/${demo().transfer}/contents`,
    `/transfers/${demo().transfer}/arrival`,
  ]) {
    await page.goto(base + path);
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth), path).toBe(
      true,
    );
  }
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${base}/transfers/${demo().transfer}/arrival`);
  await expect(page.getByTestId('verdict')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  await expectAccessible(page, 'arrival on a phone');
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'pilotage-week5.imscc' }).first().click();
  await expect(page.getByRole('article')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
  await expectAccessible(page, 'reading on a phone');
  // The first items are on the first screen; the places are one press away, and fold again.
  await expect(page.getByRole('listbox', { name: 'Items' }).getByRole('option').first()).toBeInViewport();
  const places = page.getByRole('navigation', { name: 'Contents of the package' });
  await expect(places).toBeHidden();
  await page.getByRole('button', { name: 'Tidal exam', exact: true }).click();
  await places.getByRole('button', { name: /^Lights practice/u }).click();
  await expect(places).toBeHidden();
  await expect(page.getByRole('button', { name: 'Lights practice', exact: true })).toBeVisible();
});

test('the keyboard reaches everything in the list, the search and back', async ({ page }) => {
  await page.goto(`${base}/packages`);
  await page.getByRole('link', { name: 'pilotage-week5.imscc' }).first().click();
  const list = page.getByRole('listbox', { name: 'Items' });
  await list.focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('article', { name: 'Item 2' })).toBeVisible();
  await page.keyboard.press('End');
  await expect(page.getByRole('article', { name: /Item 1[0-9]/u })).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('magnetic vari');
  await page.keyboard.press('Enter');
  await page
    .getByRole('link', { name: /Name the line/u })
    .first()
    .click();
  await expect(page.getByText('isogonal').first()).toBeVisible();
});
