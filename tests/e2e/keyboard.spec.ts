import { expect, test, type Locator, type Page } from './support/test.ts';
import { ended, onlyHabits, takeBack } from './support/courses.ts';
import { base } from './support/page.ts';

const MOST_TABS = 150;

/** Goes to something by the Tab key alone; it is then in sight, with an outline that can be seen. */
async function tabTo(page: Page, target: Locator): Promise<void> {
  await expect(target).toBeEnabled();
  for (let at = 0; at < MOST_TABS; at++) {
    if (await target.evaluate((element) => element === document.activeElement)) {
      await expect(target).toBeInViewport();
      expect(await target.evaluate(outlined), String(target)).toBe(true);
      return;
    }
    await page.keyboard.press('Tab');
  }
  throw new Error(`${String(target)} was not reached in ${MOST_TABS} tabs`);
}

/** Whether an element or what surrounds it shows that it has the focus. */
const outlined = (element: Element): boolean => {
  for (let at: Element | null = element, up = 0; at && up < 3; at = at.parentElement, up++) {
    const { outlineStyle, outlineWidth, boxShadow } = getComputedStyle(at);
    if ((outlineStyle !== 'none' && parseFloat(outlineWidth) > 0) || boxShadow !== 'none') return true;
  }
  return false;
};

async function press(page: Page, target: Locator, key = 'Enter'): Promise<void> {
  await tabTo(page, target);
  await page.keyboard.press(key);
}

test('a quiz goes from course to course by keyboard alone, and its arrival and receipt are read', async ({
  page,
}) => {
  await onlyHabits();
  const link = (name: string): Locator => page.getByRole('link', { name, exact: true });
  const button = (name: string): Locator => page.getByRole('button', { name, exact: true });
  await page.goto(base);
  await press(page, link('Bring something into a course'));
  await tabTo(page, page.getByLabel('Find the destination'));
  await page.keyboard.type('tidal autumn 01 quay');
  await press(page, page.getByRole('button', { name: /NAV 205, section 01 Autumn 2026 Quayside/u }));
  await tabTo(page, page.getByLabel('Find the source'));
  await page.keyboard.type('brook spring tides');
  await press(page, page.getByRole('button', { name: /NAV 205, section 01 Spring 2026 Quayside/u }));
  await press(page, button('Open and choose what to include'));
  await press(page, page.getByLabel('Quiz Final exam'), 'Space');
  await press(page, link('Next: Forecast'));
  await press(page, link('Next: Landing'));
  await press(page, link('Next: Send'));
  await press(page, button('Send'));
  await press(page, link('See what arrived'));
  await expect(page.getByTestId('verdict')).toBeVisible();
  const id = /transfers\/([\w-]+)/u.exec(page.url())![1]!;
  await ended(id);
  await press(page, page.getByRole('link', { name: 'Receipt', exact: true }).last());
  await expect(page.getByTestId('receipt')).toBeVisible();
  await takeBack(id);
});
