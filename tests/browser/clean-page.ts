import { expect, test as base } from '@playwright/test';

/** A page on which any console error or uncaught exception fails the test; answers that a test provokes can be expected. */
export const test = base.extend<{ expectRefusals: () => void; watched: void }>({
  expectRefusals: async ({ page }, use) => {
    await use(() => Object.assign(page, { refusals: true }));
  },
  watched: [
    async ({ page }, use) => {
      const errors: string[] = [];
      page.on('pageerror', (error) => errors.push(error.message));
      page.on('console', (message) => {
        const refusal = /Failed to load resource: (.*status of 4\d\d|net::ERR_FAILED)/.test(message.text());
        if (message.type() === 'error' && !(refusal && 'refusals' in page)) errors.push(message.text());
      });
      await use();
      expect(errors).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };
