import { test as base, type Page } from '@playwright/test';

/**
 * Tests in one sitting: those of a worker share a page, as somebody has who works at one study after another and never
 * loads the application anew, which takes longer than most of what a test looks at. Each begins at the start, where
 * nothing is left of the tests before; where the page cannot be put back, with a new one. Whoever changes what holds for
 * the whole browser, or for a page before it loads, takes `test` from Playwright, and with it a page of its own.
 */
export const test = base.extend<object, { sitting: { page: Page | null } }>({
  sitting: [
    // what a fixture asks for is read from how it takes it apart
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const sitting: { page: Page | null } = { page: null };
      await use(sitting);
      await sitting.page?.context().close();
    },
    { scope: 'worker' },
  ],

  page: async ({ sitting, browser }, use) => {
    if (sitting.page && !(await isPutBack(sitting.page))) {
      await sitting.page.context().close();
      sitting.page = null;
    }
    // made by the first test, since only then are the options of the project at hand
    sitting.page ??= await (await browser.newContext()).newPage();
    await use(sitting.page);
  },

  context: async ({ page }, use) => use(page.context()),
});

export { expect } from '@playwright/test';

/** Goes to the start within the page, whatever is open in it, and deletes the studies there. */
async function isPutBack(page: Page): Promise<boolean> {
  try {
    page.removeAllListeners();
    await page.mouse.move(0, 0);
    await page.evaluate(() => {
      history.pushState(null, '', '/');
      dispatchEvent(new PopStateEvent('popstate'));
    });
    const deletes = page.getByRole('button', { name: /^Delete / });
    await deletes.first().waitFor({ timeout: 10_000 });
    for (let left = await deletes.count(); left > 0; left--) {
      await deletes.first().click({ timeout: 5_000 });
      await page.getByRole('button', { name: 'Delete the study' }).click({ timeout: 5_000 });
      await deletes.nth(left - 1).waitFor({ state: 'detached', timeout: 5_000 });
    }
    await page.evaluate(() => localStorage.clear());
    return true;
  } catch {
    return false;
  }
}
