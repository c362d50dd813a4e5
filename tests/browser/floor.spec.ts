import type { Page } from '@playwright/test';
import { expect, test } from './clean-page';
import { events, facts, floor, logged, now as here, run, session as made } from './floor-page';
import { signIn } from './studio.mjs';

async function hurt(page: Page, signal: RegExp, region?: string, pain?: string) {
  await page.keyboard.press('p');
  await page.getByRole('button', { name: signal }).click();
  if (region) await page.getByRole('group', { name: 'Where?' }).getByRole('button', { name: region, exact: true }).click();
  if (pain) await page.getByRole('group', { name: 'Pain, of 10' }).getByRole('button', { name: pain, exact: true }).click();
  await page.getByRole('button', { name: 'Write it down' }).click();
}

test('a reload, and a tab closed in mid-drill, go on where it stood, and nothing is lost or doubled', async ({ page, context }) => {
  const { session, student } = await floor(page, context, 'Anselm Pike');
  const before = (await facts(context.request, student))[0]!.id;
  await run(page);
  await page.clock.runFor(75_000);
  await page.keyboard.press('ArrowRight');
  await page.clock.runFor(20_000);
  await logged(page);
  const now = here(page);
  const stood = await now.getByRole('heading').innerText();
  const left = Number(await page.getByTestId('count').innerText());
  const said = (await events(context.request, session)).length;

  await page.reload();
  await expect(now.getByRole('heading')).toHaveText(stood);
  expect(Math.abs(Number(await page.getByTestId('count').innerText()) - left)).toBeLessThanOrEqual(2);

  const other = await context.newPage();
  await page.close();
  await other.goto(`/sessions/${session}/run`);
  await expect(here(other).getByRole('heading')).toHaveText(stood);
  // The reload stood the clock still: that is all that was said since.
  await expect.poll(async () => (await events(context.request, session)).slice(said)).toEqual(['paused']);
  const newest = await facts(context.request, student);
  expect(newest[0]!.id).not.toBe(before);
  expect(newest.slice(0, 2).map((f) => f.what)).toContain('set');
});

test('a running session is shortened to fifteen minutes, and stays so over a reload', async ({ page, context }) => {
  const { session } = await floor(page, context, 'Kofi Marchetti', 60);
  await run(page);
  await page.clock.runFor(60_000);
  await page.getByRole('button', { name: 'Less time' }).click();
  const panel = page.getByRole('region', { name: 'Less time' });
  await panel.getByRole('textbox', { name: 'Minutes' }).fill('200');
  await expect(panel.getByText('A whole number, 1 to 120.')).toBeVisible();
  await panel.getByRole('button', { name: '15', exact: true }).click();
  await expect(panel.getByText(/^Then it takes 1[0-5]:/)).toBeVisible();
  await expect(panel.getByText(/^Left out: /)).toBeVisible();
  await panel.getByRole('button', { name: 'Shorten it' }).click();
  await expect(here(page)).toBeVisible();
  // What was logged before is "all logged" too, until this goes out.
  await expect.poll(() => events(context.request, session)).toContain('reshaped');
  await logged(page);

  await page.reload();
  await page.getByRole('button', { name: 'Less time' }).click();
  await expect(panel.getByText('It fits as it is.')).toBeVisible();
});

test('another device goes on where the first one stood', async ({ page, context, browser, baseURL }) => {
  const { session } = await floor(page, context, 'Bram Tellier');
  await run(page);
  await page.clock.runFor(70_000);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press(' ');
  await logged(page);
  const stood = await here(page).getByRole('heading').innerText();

  const device = await browser.newContext({ baseURL });
  await signIn(device);
  const there = await device.newPage();
  await there.goto(`/sessions/${session}/run`);
  await expect(here(there).getByRole('heading')).toHaveText(stood);
  await device.close();
});

test('every stop is obeyed at once, without the server too, and goes out when it is back', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  const { session, student } = await floor(page, context, 'Greta Lindqvist-Moss');
  await run(page);
  await page.clock.runFor(30_000);
  await page.route('**/api/v1/facts', (route) => route.abort());
  // Ten minutes without the server: a dull pain, a back-off and a sharp pain among them.
  const now = here(page);
  await page.keyboard.press('b');
  for (let minute = 0; minute < 10; minute++) {
    if (await page.getByRole('region', { name: /Today’s test/ }).isVisible()) break;
    await page.clock.runFor(60_000);
  }
  if (await now.isVisible()) {
    // Anything sharp is told with or without a number.
    await hurt(page, /^Sharp pain/, 'back of the thigh');
    for (let part = 0; part < 60 && (await now.isVisible()); part++) {
      expect(await now.innerText()).not.toMatch(/Pyramid|Leg swings|Hinge|Split|Standing split|Pike/);
      await page.keyboard.press('s');
    }
  }
  await expect(page.getByText('Some of it is still on this device')).toBeVisible();
  await page.unroute('**/api/v1/facts');
  await page.clock.runFor(120_000);
  await expect(page.getByText('Everything is logged.')).toBeVisible();
  const said = await events(context.request, session);
  expect(said.filter((s) => s === 'signal')).toHaveLength(1);
  const signals = (await facts(context.request, student)).filter((f) => f.what === 'signal');
  expect(signals[0]!.signal).toBe('sharpPain');
});

test('a device without room says so in red, obeys every stop, and what it said goes out when there is room', async ({ page, context }) => {
  await context.addInitScript(() => {
    const add = IDBObjectStore.prototype.add;
    IDBObjectStore.prototype.add = function (this: IDBObjectStore, ...given: [unknown]) {
      if (localStorage.getItem('full') === 'yes') throw new DOMException('No room', 'QuotaExceededError');
      return add.apply(this, given);
    };
  });
  const { session } = await floor(page, context, 'Anselm Pike');
  await page.evaluate(() => localStorage.setItem('full', 'yes'));
  await run(page);
  await page.clock.runFor(20_000);
  await expect(page.getByText(/This device keeps nothing: \d+ not saved/)).toBeVisible();
  const now = here(page);
  const stood = await now.getByRole('heading').innerText();
  await page.keyboard.press('s');
  await expect(now.getByRole('heading')).not.toHaveText(stood);
  await page.evaluate(() => localStorage.removeItem('full'));
  await page.clock.runFor(5_000);
  await logged(page);
  expect(await events(context.request, session)).toEqual(expect.arrayContaining(['started', 'skipped']));
});

test('a sign-in that ended sends nothing, and the next one sends all of it once', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  const { session } = await floor(page, context, 'Bram Tellier');
  await run(page);
  await page.clock.runFor(15_000);
  await logged(page);
  await context.clearCookies();
  await page.keyboard.press('s');
  await page.keyboard.press('s');
  await expect(page.getByText(/kept here/)).toBeVisible();
  await signIn(context);
  await page.clock.runFor(70_000);
  await logged(page);
  expect((await events(context.request, session)).filter((s) => s === 'skipped')).toHaveLength(2);
});

test('a reload without the server shows the runner where it stood', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL, serviceWorkers: 'allow' });
  const { session } = await made(context, 'Yuki Farrow');
  const page = await context.newPage();
  await page.goto('/students');
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  // The first page came before the worker was there: the second asks through it, and what it says is kept.
  await page.goto(`/sessions/${session}/run`);
  await expect(page.getByRole('button', { name: 'Run', exact: true })).toBeVisible();
  await page.keyboard.press('s');
  await logged(page);
  const stood = await here(page).getByRole('heading').innerText();

  await context.setOffline(true);
  await page.reload();
  await expect(here(page).getByRole('heading')).toHaveText(stood);
  await page.keyboard.press('s');
  await expect(page.getByText(/kept here/)).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText('all logged')).toBeVisible();
  expect((await events(context.request, session)).filter((s) => s === 'skipped')).toHaveLength(2);
  await context.close();
});

test('a second tab asks before it runs the session, and goes on where the first one stood', async ({ page, context }) => {
  const { session } = await floor(page, context, 'Anselm Pike');
  await run(page);
  await page.clock.runFor(15_000);
  await page.keyboard.press('s');
  await logged(page);
  const now = here(page);
  const stood = await now.getByRole('heading').innerText();

  const second = await context.newPage();
  await second.goto(`/sessions/${session}/run`);
  await expect(second.getByRole('heading', { name: 'This session runs in another tab' })).toBeVisible();
  await second.getByRole('button', { name: 'Run it here' }).click();
  await expect(here(second).getByRole('heading')).toHaveText(stood);
  await expect(page.getByRole('heading', { name: 'This session runs in another tab' })).toBeVisible();
  await second.keyboard.press('s');
  await logged(second);
  await expect.poll(async () => (await events(context.request, session)).filter((s) => s === 'skipped').length).toBe(2);
});

test('a device that slept asks what was done meanwhile', async ({ page, context }) => {
  const { session } = await floor(page, context, 'Anselm Pike');
  await run(page);
  await page.clock.runFor(12_000);
  await page.clock.fastForward(300_000);
  await expect(page.getByRole('heading', { name: 'Away for 5:00' })).toBeVisible();
  await page.getByRole('button', { name: /^Nothing: go on/ }).click();
  await expect(here(page)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Run', exact: true })).toBeVisible();
  await expect.poll(async () => await events(context.request, session)).toContain('gap');
});
