import { test as playwright, type Page } from '@playwright/test';
import { openDemo } from './demo.ts';

export { expect, type Locator, type Page } from '@playwright/test';

/**
 * Waits until what stands on the page can be pressed: it comes from the server first, and its buttons and keys
 * work once the scripts have run. A page that is not the application's has nothing to wait for.
 */
async function up(page: Page): Promise<void> {
  await page.waitForFunction(
    () =>
      'up' in document.documentElement.dataset || !document.querySelector('[data-sveltekit-preload-data]'),
  );
}

/** A page whose loads end when the application is up. */
export function waitingPage(page: Page): Page {
  const { goto, reload } = { goto: page.goto.bind(page), reload: page.reload.bind(page) };
  page.goto = async (url, options) => {
    const response = await goto(url, options);
    await up(page);
    return response;
  };
  page.reload = async (options) => {
    const response = await reload(options);
    await up(page);
    return response;
  };
  return page;
}

/** Each worker has an application of its own, which its tests change one after the other. */
export const test = playwright.extend<object, { application: null }>({
  application: [
    // eslint-disable-next-line no-empty-pattern -- fixtures say by this pattern what they need
    async ({}, use) => {
      const close = await openDemo();
      await use(null);
      await close();
    },
    { scope: 'worker', auto: true, timeout: 600_000 },
  ],
  page: async ({ page }, use) => use(waitingPage(page)),
});
