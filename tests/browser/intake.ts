import type { Page } from '@playwright/test';

/** No to every question that is left, which are shown and asked once more. */
export async function noToTheRest(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'No to the rest…' }).click();
  await page.getByRole('button', { name: /^No to (it|all \d+)$/ }).click();
}

/** They agree to everything that they are asked. */
export async function consentToAll(page: Page): Promise<void> {
  for (const yes of await page.getByRole('group', { name: 'Consents' }).getByText('Yes', { exact: true }).all()) await yes.click();
}
