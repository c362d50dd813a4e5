import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from './clean-page';
import { events, facts, now, run, session } from './floor-page';
import { OwnServer } from './own-server';
import { root } from './studio.mjs';

/** The front end as it was built on a day (`tests/fixtures`), in a folder of its own. */
function shellOf(day: string): string {
  const folder = mkdtempSync(join(tmpdir(), 'tensarch-shell-'));
  execFileSync('tar', ['-xzf', join(root, 'tests/fixtures', day, 'shell.tar.gz'), '-C', folder]);
  return folder;
}

const own = new OwnServer(5190, true);
test.afterAll(() => own.kill());

test('a shell of before runs against this server, and what it kept is sent by the shell of now', async ({ browser, expectRefusals }) => {
  expectRefusals();
  await own.start(shellOf('2026-12-01'));
  const context = await browser.newContext({ baseURL: own.url, viewport: { width: 1280, height: 800 } });
  const made = await session(context, 'Greta Lindqvist-Moss');
  const page = await context.newPage();
  await page.goto('/today');
  await expect(page.getByRole('heading', { name: 'Who trains today' })).toBeVisible();
  await page.clock.install();
  await page.goto(`/sessions/${made.session}/run`);
  await run(page);
  await page.clock.runFor(40_000);
  await page.keyboard.press('s');
  await expect(page.getByText('all logged')).toBeVisible();
  const told = await events(context.request, made.session);
  expect(told).toContain('skipped');

  // Without the server it goes on; then the server comes back with another shell.
  await page.route('**/api/**', (route) => route.abort());
  await page.keyboard.press('s');
  await page.clock.runFor(40_000);
  await page.keyboard.press('p');
  await page.getByRole('button', { name: /^Dull pain/ }).click();
  await page.getByRole('group', { name: 'Where?' }).getByRole('button', { name: 'elbow', exact: true }).click();
  await page.getByRole('group', { name: 'Pain, of 10' }).getByRole('button', { name: '4', exact: true }).click();
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByText(/: \d+ kept here/)).toBeVisible();
  const stood = await now(page).getByRole('heading').innerText();
  await page.close();
  await own.kill();
  await own.start();

  const after = await context.newPage();
  await after.clock.install();
  await after.goto(`/sessions/${made.session}/run`);
  await expect(now(after).getByRole('heading')).toHaveText(stood);
  await expect(after.getByText('all logged')).toBeVisible();
  const all = await events(context.request, made.session);
  expect(all.slice(0, told.length)).toEqual(told);
  expect(all.filter((e) => e === 'skipped').length).toBe(2);
  expect((await facts(context.request, made.student)).filter((f) => f.signal === 'dullPain').length).toBe(1);
  await context.close();
});
