/**
 * Tests in one page of the browser, one after another, as a person who opens project after project: the application is loaded and
 * the kernel started once for all of them, not for each, which takes longer than most tests. A failure ends Playwright's worker and
 * with it the page, so that the next test begins with a fresh one. Tests of starting, storage and accounts take Playwright's own
 * `test`, with a fresh page for each.
 */
import { test as base, type Page } from '@playwright/test';

export { expect, type Page } from '@playwright/test';

export const test = base.extend<object, { readonly pageForAll: Page }>({
  pageForAll: [
    async ({ browser }, use, { project }) => {
      const { baseURL, viewport, deviceScaleFactor } = project.use;
      const context = await browser.newContext({
        ...(baseURL ? { baseURL } : {}),
        viewport: viewport ?? null,
        ...(deviceScaleFactor === undefined ? {} : { deviceScaleFactor }),
      });
      await use(await context.newPage());
      await context.close();
    },
    { scope: 'worker' },
  ],
  page: async ({ pageForAll }, use) => {
    await use(pageForAll);
    pageForAll.removeAllListeners();
  },
});
