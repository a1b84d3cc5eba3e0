import { test as playwright, type Page } from '@playwright/test';

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

export const test = playwright.extend({
  page: async ({ page }, use) => use(waitingPage(page)),
});
