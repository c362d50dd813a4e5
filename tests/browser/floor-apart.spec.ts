import { expect, test } from './clean-page';
import { events, facts, floor, logged, now, run, session } from './floor-page';
import { OwnServer } from './own-server';
import { signIn } from './studio.mjs';

test('two tabs without the server: one runs, the other takes over, and all of it goes out once', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  const made = await floor(page, context, 'Kofi Marchetti');
  await run(page);
  await page.clock.runFor(15_000);
  await logged(page);
  const second = await context.newPage();
  await second.goto(`/sessions/${made.session}/run`);
  await expect(second.getByRole('heading', { name: 'This session runs in another tab' })).toBeVisible();
  for (const tab of [page, second]) await tab.route('**/api/**', (route) => route.abort());

  await page.keyboard.press('s');
  await expect(page.getByText(/: \d+ kept here/)).toBeVisible();
  const stood = await now(page).getByRole('heading').innerText();
  await second.getByRole('button', { name: 'Run it here' }).click();
  await expect(now(second).getByRole('heading')).toHaveText(stood);
  await expect(page.getByRole('heading', { name: 'This session runs in another tab' })).toBeVisible();
  await second.keyboard.press('s');
  await expect(now(second).getByRole('heading')).not.toHaveText(stood);

  for (const tab of [page, second]) await tab.unroute('**/api/**');
  await second.reload();
  await logged(second);
  await expect.poll(async () => (await events(context.request, made.session)).filter((s) => s === 'skipped').length).toBe(2);
});

test('two devices without the server: both are kept, and what had not heard of the other counts for no gate until the coach has looked', async ({ page, context, browser, baseURL, expectRefusals }) => {
  expectRefusals();
  const made = await floor(page, context, 'Kofi Marchetti');
  await run(page);
  await page.clock.runFor(20_000);
  await logged(page);
  const device = await browser.newContext({ baseURL });
  await signIn(device);
  const there = await device.newPage();
  await there.clock.install();
  await there.goto(`/sessions/${made.session}/run`);
  await expect(now(there)).toBeVisible();
  // It has said that the run stands still before it loses the server.
  await expect.poll(async () => (await events(context.request, made.session)).at(-1)).toBe('paused');
  for (const tab of [page, there]) await tab.route('**/api/**', (route) => route.abort());
  // Both go on for two minutes, and neither hears of the other.
  await run(there);
  for (const tab of [page, there]) {
    await tab.clock.runFor(90_000);
    await tab.keyboard.press('ArrowRight');
    await tab.clock.runFor(2_000);
    await expect(tab.getByText(/: \d+ kept here/)).toBeVisible();
  }
  await page.unroute('**/api/**');
  await page.clock.runFor(70_000);
  await logged(page);
  await there.unroute('**/api/**');
  await there.clock.runFor(70_000);
  await logged(there);
  // The second one took the run up when it was opened: the first one had not heard of that.
  await expect(page.getByRole('alert')).toContainText('Another device runs this session too');
  await expect(there.getByText('Another device runs this session too')).toHaveCount(0);
  const sets = (await facts(context.request, made.student)).filter((f) => f.what === 'set');
  expect(sets.some((s) => s.doubled)).toBe(true);
  expect(sets.some((s) => !s.doubled)).toBe(true);

  await page.goto(`/sessions/${made.session}`);
  await expect(page.getByText(/Two devices ran this session without hearing of each other/)).toBeVisible();
  await page.getByRole('link', { name: 'Look through them' }).click();
  await expect(page.getByText('another device ran this session too: counts for no gate').first()).toBeVisible();
  await device.close();
});

test.describe('a server that is killed and started again', () => {
  const own = new OwnServer(5186, true);

  test.beforeAll(() => own.start());
  test.afterAll(() => own.kill());

  test('what was told is there, what was said meanwhile follows, and the sign-in stands', async ({ browser, expectRefusals }) => {
    expectRefusals();
    const context = await browser.newContext({ baseURL: own.url });
    const made = await session(context, 'Anselm Pike');
    const page = await context.newPage();
    await page.goto(`/sessions/${made.session}/run`);
    await run(page);
    await page.keyboard.press('s');
    await logged(page);
    await own.kill();
    await page.keyboard.press('s');
    await page.keyboard.press('p');
    await page.getByRole('button', { name: /^Sharp pain/ }).click();
    await page.getByRole('group', { name: 'Where?' }).getByRole('button', { name: 'neck', exact: true }).click();
    await page.getByRole('button', { name: 'Write it down' }).click();
    await expect(page.getByText(/: \d+ kept here/)).toBeVisible();
    await own.start();
    await logged(page);
    const all = await events(context.request, made.session);
    expect(all.filter((s) => s === 'skipped')).toHaveLength(2);
    expect(all.filter((s) => s === 'signal')).toHaveLength(1);
    expect((await facts(context.request, made.student)).filter((f) => f.signal === 'sharpPain')).toHaveLength(1);
    await context.close();
  });
});
