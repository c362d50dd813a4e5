import { expect, test } from '@playwright/test';
import { OwnServer } from './own-server';
import { signIn } from './studio.mjs';

// A studio of its own: everybody's plan changes.
const own = new OwnServer(5189, true);

test.beforeAll(() => own.start());
test.afterAll(() => own.kill());

test('everybody is planned at once, while the pages answer; what came of each is there after a restart', async ({ browser }) => {
  test.setTimeout(480_000);
  const context = await browser.newContext({ baseURL: own.url, viewport: { width: 1280, height: 800 } });
  await signIn(context);
  const page = await context.newPage();
  await page.goto('/today');
  await page.getByRole('link', { name: 'Plan everybody’s weeks' }).click();
  await page.getByRole('checkbox', { name: /those without a programme too/ }).uncheck();
  await page.getByRole('button', { name: 'Plan everybody' }).click();
  const run = page.getByRole('region', { name: 'The newest run' });
  await expect(run.getByRole('button', { name: 'Cancel' })).toBeVisible();
  // The server goes down in the middle of it, and goes on with it.
  await own.kill();
  await own.start();
  await expect(page.getByRole('button', { name: 'Plan everybody' })).toBeVisible({ timeout: 240_000 });
  await expect(run.getByRole('listitem').filter({ hasText: 'Anselm Pike' })).toContainText(/planned|stays as it is/);
  await expect(run.getByRole('listitem').filter({ hasText: 'Dario Weft' })).toContainText('left alone');
  await expect(run.getByText('11 of 11')).toBeVisible();

  // Cancelled: what is through is through, and the rest is left as it was.
  await page.getByRole('button', { name: 'Plan everybody' }).click();
  await run.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('button', { name: 'Plan everybody' })).toBeVisible({ timeout: 120_000 });
  await expect(run.getByRole('status')).toContainText('cancelled');
  expect(own.errors).toEqual([]);
  await context.close();
});
