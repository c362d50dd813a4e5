import type { Locator, Page } from '@playwright/test';
import { consentToAll, noToTheRest } from './intake';
import { expect, test } from './clean-page';
import { OwnServer } from './own-server';
import { setupCode } from './studio.mjs';

/**
 * A new coach's first hour, on an empty studio: one new student, from the intake to a decision. Every other skill goes the same way by HTTP
 * (`FirstHourTests`).
 */
const own = new OwnServer(5187, false);
const owner = { email: 'una@quay.example', password: 'a-long-password' };

type Measure = { key: string; name: string; kind: string; min: number; max: number; resolution: number; step: number | null; perSide: boolean; instruments: string[] };

test.beforeAll(async () => {
  await own.start();
  const made = await fetch(`${own.url}/api/v1/accounts/owner`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ setupCode, studioName: 'Quay Loft', timeZone: 'Europe/Berlin', name: 'Una Frey', ...owner }),
  });
  expect(made.ok, await made.text()).toBe(true);
});
test.afterAll(() => own.kill());

const why = (page: Page) => page.getByRole('complementary', { name: 'Why' });
const tab = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Student' }).getByRole('link', { name, exact: true }).click();

/** A value that anyone could have: in the middle of what is plausible, on its step. */
function usual(measure: Measure): string {
  const step = measure.step ?? measure.resolution ?? 1;
  return String(Math.round((measure.min + (measure.max - measure.min) * 0.4) / step) * step);
}

async function readSide(panel: Locator, measure: Measure): Promise<void> {
  if (measure.kind === 'rate') {
    for (let i = 0; i < 6; i++) await panel.getByRole('button', { name: /^Held/ }).click();
    return;
  }
  if (measure.kind === 'hold') {
    const choose = panel.getByRole('button', { name: 'Time this side' });
    if (await choose.isVisible()) await choose.click();
    await panel.getByRole('button', { name: 'Type the seconds' }).click();
  }
  const field = panel.getByRole('textbox', { name: /^Trial/ });
  for (let i = 0; i < (measure.kind === 'hold' ? 2 : 3); i++) {
    await field.fill(usual(measure));
    await field.press('Enter');
    await expect(panel.getByRole('button', { name: new RegExp(`^Trial ${i + 1},`) })).toBeVisible();
  }
}

/** Reads everything that a sitting asks for, and ends it. */
async function readAll(page: Page, measures: Measure[]): Promise<number> {
  const items = page.getByRole('navigation', { name: 'Measures of this sitting' }).getByRole('listitem');
  await expect(items.first()).toBeVisible();
  const count = await items.count();
  let left = 0;
  for (let i = 0; i < count; i++) {
    // Saving goes on to what is not read yet, a moment after the count.
    await expect(items.locator('[aria-current=step]')).not.toContainText('✓');
    const name = await page.getByRole('main').getByRole('heading', { level: 2 }).last().innerText();
    const measure = measures.find((m) => m.name === name)!;
    if (measure.instruments.every((i) => i === 'picture')) {
      // Read from a picture alone, and no camera is here: it is left, and the sitting ends without it.
      left++;
      if (i + 1 < count) await items.nth(i + 1).getByRole('button').click();
      continue;
    }
    const panels = measure.perSide ? ['Left side', 'Right side'] : ['Reading'];
    for (const panel of panels) await readSide(page.getByRole('region', { name: panel }), measure);
    const read = page.getByText(/^\d+ of \d+ read$/);
    const before = Number.parseInt(await read.innerText());
    await page.getByRole('button', { name: 'Save and go on' }).click();
    await expect.poll(async () => Number.parseInt(await read.innerText())).toBe(before + panels.length);
  }
  if (left) {
    await page.getByRole('button', { name: 'End the sitting' }).click();
    return count;
  }
  const finished = page.getByRole('region', { name: 'Finished' });
  await expect(finished.getByRole('heading', { name: 'All read' })).toBeVisible();
  await finished.getByRole('button', { name: 'End the sitting' }).click();
  return count;
}

const skill = 'Front split';

test('a new student of the front split', async ({ browser }) => {
  test.setTimeout(240_000);
  const context = await browser.newContext({ baseURL: own.url, viewport: { width: 1280, height: 800 } });
  context.setDefaultTimeout(20_000);
  const page = await context.newPage();
  const wrong: string[] = [];
  page.on('pageerror', (error) => wrong.push(error.message));
  page.on('console', (message) => {
    if (message.type() === 'error') wrong.push(message.text());
  });
  expect((await context.request.post('/api/v1/accounts/sign-in', { data: owner })).ok()).toBe(true);
  const { measures } = (await (await context.request.get('/api/v1/catalogue')).json()) as { measures: Measure[] };

  // Intake.
  const name = `New ${skill} Student`;
  await page.goto('/students');
  await page.getByRole('link', { name: 'Add a student' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Birth date').fill('1994-05-06');
  await page.getByLabel('Left leg, cm').fill('86');
  await page.getByLabel('Right leg, cm').fill('86');
  await page.getByRole('button', { name: `Add ${skill} to the goals` }).click();
  await consentToAll(page);
  await noToTheRest(page);
  await page.getByRole('button', { name: 'Save the student' }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();

  // Baseline, then the ladder.
  await tab(page, 'Bench');
  await page.getByRole('button', { name: /^Read \d+ measures?$/ }).click();
  expect(await readAll(page, measures)).toBeGreaterThan(0);
  await page.getByRole('button', { name: /^Confirm the stages?$/ }).click();
  await expect(why(page)).toBeVisible();
  const student = new URL(page.url()).pathname;

  // The next session: run, a pain, a reload, on to its end.
  await page.getByLabel('Minutes').fill('30');
  await page.getByRole('button', { name: 'Make the next session' }).click();
  await page.clock.install();
  await page.getByRole('link', { name: 'Run it' }).click();
  await page.getByRole('button', { name: 'Run', exact: true }).click();
  await page.clock.runFor(80_000);
  await page.keyboard.press('p');
  await page.getByRole('button', { name: /^Dull pain/ }).click();
  await page.getByRole('group', { name: 'Where?' }).getByRole('button', { name: 'elbow', exact: true }).click();
  await page.getByRole('group', { name: 'Pain, of 10' }).getByRole('button', { name: '4', exact: true }).click();
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByText('all logged')).toBeVisible();
  await page.reload();
  const now = page.getByRole('region', { name: 'Now' });
  await expect(now).toBeVisible();
  for (let part = 0; part < 60 && (await now.isVisible()); part++) await page.keyboard.press('s');
  await page.clock.runFor(2_000);
  await expect(page.getByText('Everything is logged.')).toBeVisible();
  await page.getByRole('link', { name: 'What was done' }).click();
  await expect(page.getByRole('region', { name: 'What was done' }).getByText('skipped').first()).toBeVisible();

  // The second one is logged by hand.
  await page.goto(student);
  await page.getByRole('button', { name: 'Make the next session' }).click();
  await page.getByRole('link', { name: 'Log it by hand' }).click();
  await page.getByLabel('For the start of the next session').fill('Breathe out first.');
  await page.getByRole('button', { name: 'Log it as planned' }).click();
  await expect(page.getByRole('heading', { name: /^Done,/ })).toBeVisible();

  // What the student says of the last repetition is kept beside it, the first slip corrected.
  const quick = page.getByRole('region', { name: 'At the last repetition' }).locator('form').first();
  await expect(quick).toBeVisible();
  await quick.getByRole('textbox').fill('8600');
  await quick.getByRole('button', { name: 'Keep' }).click();
  await expect(quick.getByRole('alert')).toBeVisible();
  await quick.getByRole('textbox').fill('12');
  await quick.getByRole('button', { name: 'Keep' }).click();
  await expect(quick.getByRole('status')).toHaveText('12 cm kept');
  expect(wrong.splice(0).every((w) => w.includes('status of 4'))).toBe(true);

  // One set is corrected, one reading is struck out, and taken back, and struck out for good.
  await page.goto(`${student}/history`);
  const facts = page.getByRole('region', { name: 'What was done, said and decided' }).getByRole('listitem');
  const set = facts.filter({ hasText: 'Lie still' }).first();
  await set.getByRole('button', { name: /^Correct…/ }).click();
  await set.getByLabel('Seconds').fill('7');
  await set.getByLabel('Why?').fill('The watch ran on by mistake.');
  await set.getByRole('button', { name: 'Save the correction' }).click();
  await expect(facts.filter({ hasText: 'The watch ran on by mistake.' })).toHaveCount(1);
  await tab(page, 'Readings');
  const reading = page.getByRole('listitem').filter({ has: page.getByRole('button', { name: 'Void…' }) }).first();
  for (const round of ['undo', 'keep']) {
    await reading.getByRole('button', { name: 'Void…' }).click();
    await reading.getByLabel('Why is this reading void?').fill('The leg was held by mistake.');
    await reading.getByRole('button', { name: 'Void the reading' }).click();
    await expect(page.getByText('Void: The leg was held by mistake.')).toHaveCount(1);
    if (round === 'keep') break;
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('Void: The leg was held by mistake.')).toHaveCount(0);
  }

  // From the why panel to exactly what it asks; then the coach decides.
  await page.goto(student);
  const step = why(page).getByRole('link', { name: /^(Read it now|Re-test it|Time it now|Count attempts)/ }).first();
  if (await step.isVisible()) {
    await step.click();
    await expect(page).toHaveURL(/\/bench\/[0-9a-f-]{36}/);
    expect(await readAll(page, measures)).toBe(1);
  } else await expect(why(page).getByRole('link').first()).toBeVisible();
  await expect(why(page)).toBeVisible();
  await why(page).getByRole('button', { name: 'Stay', exact: true }).first().click();
  await expect(why(page).getByText('Written down: stays here.').first()).toBeVisible();
  await page.goto(`${student}/decisions`);
  await expect(page.getByRole('listitem').filter({ hasText: /stay/i }).first()).toBeVisible();

  expect(wrong).toEqual([]);
  expect(own.errors).toEqual([]);
  await context.close();
});
