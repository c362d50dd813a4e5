import type { BrowserContext, Page } from '@playwright/test';
import { test as clean } from './clean-page';
import { signIn } from './studio.mjs';

/** Pages of one signed-in context for each worker: what the browser has fetched and compiled once, every screen uses. */
export const test = clean.extend<{ page: Page; request: BrowserContext['request'] }, { desk: BrowserContext }>({
  desk: [
    async ({ browser }, use, info) => {
      const { baseURL, viewport } = info.project.use;
      const context = await browser.newContext({ baseURL, viewport });
      await context.addInitScript(() => localStorage.setItem('theme', 'chalk'));
      await signIn(context);
      await use(context);
      await context.close();
    },
    { scope: 'worker' },
  ],
  page: async ({ desk }, use) => {
    const page = await desk.newPage();
    await use(page);
    await page.close();
  },
  request: async ({ desk }, use) => use(desk.request),
});
