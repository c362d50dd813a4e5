import { expect, test } from './clean-page';
import { signIn } from './studio.mjs';

test.describe.configure({ mode: 'serial' });

test('the start page of the demo lets a coach in', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Enter as Tamsin' }).click();
  await expect(page.getByRole('link', { name: 'Sunniva Dahl' })).toBeVisible();
});

test('the leading side waits, with its tests still shown', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/students');
  await page.getByRole('link', { name: 'Sunniva Dahl' }).click();
  const right = page.getByRole('button', { name: /^right stage 4 Middle hands, waiting/ });
  await right.click();
  const why = page.getByRole('complementary', { name: 'Why' });
  await expect(why.getByRole('heading', { name: 'Why right is waiting' })).toBeVisible();
  await expect(why).toContainText('It opens when left reaches stage 4.');
  await expect(why.getByRole('button', { name: /^Advance/ })).toBeDisabled();
  await expect(page.getByRole('region', { name: /^right/ }).getByRole('listitem')).toHaveCount(6);
  await page.keyboard.press('ArrowLeft');
  await expect(why.getByRole('heading', { name: 'Why the left gate says re-test' })).toBeVisible();
  await expect(why).toContainText(/Re-test the left front split gap/);
});

test('an open gate is decided in place, and its evidence stays in the log', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/readiness');
  const ready = page.getByRole('region', { name: 'Ready: decide' });
  await expect(ready.getByRole('listitem')).toHaveCount(2);
  await ready.getByRole('group', { name: 'Decide for Nkechi Strand, left' }).getByRole('button', { name: 'Advance to 5' }).click();
  await expect(ready.getByRole('listitem')).toHaveCount(1);
  await ready.getByRole('link', { name: /Nkechi Strand/ }).click();
  await expect(page.getByRole('heading', { name: 'Why the right gate is open' })).toBeVisible();
  await page.getByRole('link', { name: 'Decisions' }).click();
  await page.getByText('Advanced: stage 4 to 5').click();
  await expect(page.getByRole('region', { name: /what the gate said: ready/ }).getByText('Front split gap')).toBeVisible();
});

test('coming back after four weeks asks for a new baseline and starts lightly', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/students');
  await expect(page.getByRole('listitem').filter({ hasText: 'Anselm Pike' })).toContainText('Back after 31 days: take a new baseline');
  await page.getByRole('link', { name: 'Anselm Pike' }).click();
  await expect(page.getByText('A step back is suggested.')).toBeVisible();
  await page.getByRole('button', { name: 'Make the next session' }).click();
  await expect(page.getByText(/31 days away: first-week dose/)).toBeVisible();
  await expect(page.getByText(/Pigeon is left out: knee twist is held/)).toBeVisible();
});

test('a student who is new gets a suggested stage from today’s baseline', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/students');
  await page.getByRole('link', { name: 'Dario Weft' }).click();
  await expect(page.getByText('Suggested: stage 1').first()).toBeVisible();
});

test('an assistant reads everything and is offered no change', async ({ page, context }) => {
  await signIn(context, 'odile@saltlamp.example', 'lamp-works-reads');
  await page.goto('/students');
  await expect(page.getByRole('link', { name: 'Add a student' })).toHaveCount(0);
  await page.getByRole('link', { name: 'Greta Lindqvist-Moss' }).click();
  await expect(page.getByRole('heading', { name: /^Why the left gate/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /Advance|Stay|Override|Make the next session/ })).toHaveCount(0);
});

test('a runner without the server keeps what was done and sends it later', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  await signIn(context);
  await page.goto('/students');
  await page.getByRole('link', { name: 'Greta Lindqvist-Moss' }).click();
  await page.getByRole('button', { name: 'Make the next session' }).click();
  await page.getByRole('link', { name: 'Run it' }).click();
  await page.clock.install();
  await page.getByRole('button', { name: 'Run', exact: true }).click();
  await page.route('**/facts', (route) => route.abort());
  for (let i = 0; i < 4; i++) await page.clock.runFor(60_000);
  await expect(page.getByText(/cannot be reached: \d+ kept here/)).toBeVisible();
  await page.unroute('**/facts');
  await page.clock.runFor(11_000);
  await expect(page.getByText('all logged')).toBeVisible();
});
