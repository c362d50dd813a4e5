import type { BrowserContext, Page } from '@playwright/test';
import { expect, test } from './clean-page';
import { signIn } from './studio.mjs';

test.describe.configure({ mode: 'serial' });

async function idOf(context: BrowserContext, name: string): Promise<string> {
  const { students } = (await (await context.request.get('/api/v1/students')).json()) as { students: { id: string; name: string }[] };
  return students.find((s) => s.name === name)!.id;
}

/** Opens a sitting with the measures named. */
async function sit(page: Page, context: BrowserContext, name: string, measures: string[]): Promise<string> {
  await signIn(context);
  const student = await idOf(context, name);
  const id = crypto.randomUUID();
  const made = await context.request.post(`/api/v1/students/${student}/sittings`, {
    data: { id, scope: 'single', measures, cold: false },
  });
  expect(made.status()).toBe(201);
  await page.goto(`/students/${student}/bench/${id}`);
  return student;
}

const left = (page: Page) => page.getByRole('region', { name: 'Left side' });
const right = (page: Page) => page.getByRole('region', { name: 'Right side' });
const trials = (page: Page, side: 'left' | 'right') => page.getByRole('group', { name: `Trials taken, ${side}` }).locator('[data-trial]');

test('both sides of knee-to-wall, three trials each, in fifteen key presses', async ({ page, context }) => {
  await sit(page, context, 'Kofi Marchetti', ['knee-to-wall', 'crow-entry-success']);
  await expect(left(page).getByRole('textbox', { name: /^Trial 1/ })).toBeFocused();
  let presses = 0;
  const type = async (text: string) => {
    for (const key of text) {
      await page.keyboard.press(key);
      presses++;
    }
  };
  await type('9.8');
  await type('.2');
  await type('.3');
  await expect(trials(page, 'left')).toHaveText(['9.8', '10.2', '10.3']);
  await expect(left(page)).toContainText('10.1 cm');
  await expect(right(page).getByRole('textbox', { name: /^Trial 1/ })).toBeFocused();
  await type('9.1');
  await type('.4');
  await type('.2');
  await expect(trials(page, 'right')).toHaveText(['9.1', '9.4', '9.2']);
  const save = page.getByRole('button', { name: 'Save and go on' });
  await expect(save).toBeFocused();
  await page.keyboard.press('Enter');
  presses++;
  await expect(page.getByRole('status').filter({ hasText: 'Knee to wall is saved, left and right.' })).toBeVisible();
  expect(presses).toBe(15);
  await expect(page.getByRole('heading', { name: 'Crow entries held' })).toBeVisible();
});

test('a sitting goes on after a reload, with what was captured, on another device too', async ({ page, context, browser }) => {
  await sit(page, context, 'Kofi Marchetti', ['hinge-angle']);
  const field = page.getByRole('textbox', { name: /^Trial/ });
  await field.fill('71');
  await field.press('Enter');
  const sent = page.waitForResponse((r) => r.url().includes('/drafts/') && (r.request().postData() ?? '').includes('72') && r.ok());
  await field.fill('72');
  await field.press('Enter');
  const kept = page.getByRole('group', { name: 'Trials taken' }).locator('[data-trial]');
  await expect(kept).toHaveText(['71.0', '72.0']);
  await sent;

  const tablet = await browser.newContext({ baseURL: 'http://127.0.0.1:5181' });
  await signIn(tablet, 'tamsin@saltlamp.example', 'lamp-works-coach');
  const other = await tablet.newPage();
  await other.goto(page.url().replace(/\/bench\/.*/, '/bench'));
  await other.getByRole('link', { name: 'Go on with the sitting' }).first().click();
  await expect(other.getByRole('group', { name: 'Trials taken' }).locator('[data-trial]')).toHaveText(['71.0', '72.0']);
  await tablet.close();
  await page.reload();
  await expect(kept).toHaveText(['71.0', '72.0']);
});

test('the inclinometer settles, drops out and comes back, and no captured trial is lost', async ({ page, context }) => {
  await sit(page, context, 'Kofi Marchetti', ['wrist-extension']);
  const scenario = (trueDeg: number, droppedOut = false) =>
    context.request.put('/api/v1/instruments/inclinometer/scenario', {
      data: { trueDeg, tremorDeg: 0.15, driftDegPerMinute: 0, settleSeconds: 1, droppedOut },
    });
  await scenario(95);
  await left(page).getByLabel('Instrument').selectOption('inclinometer');
  await expect(left(page).getByText('Stands still.')).toBeVisible();
  await expect(trials(page, 'left')).toHaveCount(1);
  await expect(trials(page, 'left').first()).toHaveText(/^9[45]\.\d$/);

  await scenario(95, true);
  await expect(left(page).getByText(/The device is lost/)).toBeVisible();
  await expect(left(page).getByRole('button', { name: /^Capture/ })).toBeDisabled();
  await expect(trials(page, 'left')).toHaveCount(1);

  await scenario(88);
  await expect(left(page).getByText('Stands still.')).toBeVisible();
  await expect(trials(page, 'left')).toHaveCount(2);
  await page.getByRole('heading', { name: 'Wrist extension' }).click();
  await page.keyboard.press('Space');
  await expect(trials(page, 'left')).toHaveCount(3);
  await page.reload();
  await expect(trials(page, 'left')).toHaveCount(3);
});

test('landmarks on the drawn handstand read within half a degree of the drawn truth', async ({ page, context }) => {
  await signIn(context);
  await page.goto(`/students/${await idOf(context, 'Kofi Marchetti')}/pictures`);
  await page.getByRole('button', { name: /Handstand line/ }).last().click();
  const picture = page.getByRole('application', { name: /Side picture/ });
  for (let i = 0; i < 4; i++) await page.getByRole('button', { name: 'Take one back' }).click();
  await expect(page.getByText('Next: Wrist')).toBeVisible();

  // Drawn 900 × 1200 with a shoulder closed by 24°, a hip arched by 15°, and a lean of 6° to the back.
  const truth = [
    [450, 1072],
    [532.1, 793.9],
    [496.7, 526.2],
    [551.1, 109.8],
  ] as const;
  const box = (await picture.boundingBox())!;
  for (const [x, y] of truth)
    await picture.click({ position: { x: (x / 900) * box.width, y: (y / 1200) * box.height } });
  const said = page.locator('dl[aria-label="Angles"]');
  const degrees = async (name: string) => Number(/([\d.]+)°/.exec(await said.locator('div', { hasText: name }).innerText())![1]);
  await expect(said).toContainText('closed');
  expect(Math.abs((await degrees('Shoulder')) - 24)).toBeLessThanOrEqual(0.5);
  expect(Math.abs((await degrees('Hip')) - 15)).toBeLessThanOrEqual(0.5);
  expect(Math.abs((await degrees('Lean')) - 6)).toBeLessThanOrEqual(0.5);
  expect(Math.abs((await degrees('Reads')) - 24)).toBeLessThanOrEqual(0.5);

  const before = await degrees('Lean');
  await picture.press('4');
  for (let i = 0; i < 5; i++) await picture.press('Shift+ArrowRight');
  await expect.poll(() => degrees('Lean')).toBeGreaterThan(before + 2);
  await page.getByRole('button', { name: 'Keep these landmarks' }).click();
  await expect(page.getByText('All placed.')).toBeVisible();
});

test('two pictures of one measure stand side by side, weeks apart', async ({ page, context }) => {
  await signIn(context);
  await page.goto(`/students/${await idOf(context, 'Sunniva Dahl')}/pictures`);
  await page.getByRole('button', { name: /Front split/ }).first().click();
  await page.getByRole('button', { name: /Front split/ }).last().click();
  const pair = page.getByRole('region', { name: 'Two pictures side by side' });
  await expect(pair.getByRole('img', { name: /with its landmarks/ })).toHaveCount(2);
  await expect(pair.getByText('Reads')).toHaveCount(2);
});

test('a file that is no picture says so, and a PNG becomes a reading', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  await sit(page, context, 'Kofi Marchetti', ['handstand-line']);
  const input = page.getByLabel('Side picture', { exact: true });
  await input.setInputFiles({ name: 'line.png', mimeType: 'image/png', buffer: Buffer.from('not a picture at all') });
  await expect(page.getByText('This is no PNG, JPEG or WebP picture.')).toBeVisible();
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAoAAAAKCAYAAACNMs+9AAAAFUlEQVR42mP8z8BQz0AEYBxVSF+FABJADveWkH6oAAAAAElFTkSuQmCC',
    'base64',
  );
  await input.setInputFiles({ name: 'line.png', mimeType: 'image/png', buffer: png });
  const picture = page.getByRole('application', { name: /Side picture/ });
  for (const _ of ['wrist', 'shoulder', 'hip', 'ankle']) await picture.press('Enter');
  await picture.press('4');
  await picture.press('ArrowRight');
  await page.getByRole('button', { name: 'Take as trial 1' }).click();
  await expect(page.getByRole('group', { name: 'Trials taken' }).locator('[data-trial]')).toHaveCount(1);
});

test('a hold is timed with one key, and attempts are counted with one key each', async ({ page, context }) => {
  await sit(page, context, 'Kofi Marchetti', ['hollow-hold', 'crow-entry-success']);
  await page.clock.install();
  await expect(page.getByRole('heading', { name: 'Hollow hold' })).toBeVisible();
  await page.getByLabel('Level').selectOption('one-leg');
  await page.getByRole('heading', { name: 'Hollow hold' }).click();
  await page.clock.pauseAt(Date.now() + 60_000);
  for (const seconds of [21, 34]) {
    await page.keyboard.press('Space');
    await page.clock.runFor(seconds * 1000);
    await page.keyboard.press('Space');
  }
  // A stray digit is no quality.
  await page.keyboard.press('3');
  await page.clock.resume();
  const taken = page.getByRole('group', { name: 'Trials taken' }).locator('[data-trial]');
  await expect(taken).toHaveText(['21.0', '34.0']);
  await expect(page.getByRole('region', { name: 'Reading' })).toContainText(/Best\s*34\.0 s/);
  await expect(page.getByRole('radio', { name: '3' })).not.toBeChecked();
  await page.getByRole('radio', { name: '1' }).focus();
  await page.keyboard.press('4');
  await expect(page.getByRole('radio', { name: '4' })).toBeChecked();
  await page.getByRole('button', { name: /^Start/ }).focus();
  await page.keyboard.press('Enter');

  await expect(page.getByRole('heading', { name: 'Crow entries held' })).toBeVisible();
  for (const key of 'hhmhhhmhhm') await page.keyboard.press(key);
  await expect(page.getByText('7 of 10', { exact: true })).toBeVisible();
  await expect(page.getByText('95 % of the time between 40 % and 89 %')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByText('2 of 2 read')).toBeVisible();
});

test('an unlikely value asks, a barred measure is not offered', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  await sit(page, context, 'Kofi Marchetti', ['shoulder-flexion']);
  const field = left(page).getByRole('textbox', { name: /^Trial/ });
  await field.fill('90');
  await field.press('Enter');
  await page.getByRole('button', { name: 'Save and go on' }).click();
  await expect(left(page).getByText(/Far from the usual 1[67]\d/)).toBeVisible();
  await page.getByRole('button', { name: 'Yes, really' }).click();
  await expect(left(page).getByText('Read in this sitting.', { exact: false })).toBeVisible();

  await page.goto(`/students/${await idOf(context, 'Rosalind Achterberg')}/bench`);
  await expect(page.getByText(/Off limits and left out: .*Chin to breastbone/).first()).toBeVisible();
  await expect(page.getByRole('checkbox', { name: /Shoulderstand line/ })).toBeDisabled();
});

test('a file of readings is tried, corrected, taken, and adds nothing the second time', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/exchange');
  const send = (trial: string) =>
    page.getByLabel('CSV file').setInputFiles({
      name: 'readings.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(`student,measure,side,warmth,trials,taken_at\r\nKofi Marchetti,thoracic-rotation,left,warm,${trial},2026-03-01\r\n`),
    });
  await send('abc');
  await expect(page.getByText('trials: Write a number, such as 21.5.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Take/ })).toHaveCount(0);
  await send('41;42;43');
  await page.getByRole('button', { name: 'Take 1 reading' }).click();
  await expect(page.getByText('Taken: 1.')).toBeVisible();
  await send('41;42;43 ');
  await expect(page.getByText('0 new, 1 here already, 0 unlikely, 0 with problems.')).toBeVisible();
});

test('a studio makes its own version of a measure and goes back to the shipped one', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  await signIn(context);
  await page.goto('/library/overhead-wall-gap');
  await page.getByRole('button', { name: 'Make an own version' }).click();
  await page.getByLabel('Greatest plausible, cm').fill('-5');
  await page.getByRole('button', { name: 'Save our version' }).click();
  await expect(page.getByText('The least is under the greatest.')).toBeVisible();
  await page.getByLabel('Greatest plausible, cm').fill('50');
  await page.getByLabel('Protocol, a step on each line').fill('Back to the post.\nThumb to the post.');
  await page.getByRole('button', { name: 'Save our version' }).click();
  await expect(page.getByRole('heading', { name: 'Your studio’s version' })).toBeVisible();
  await expect(page.getByRole('listitem').filter({ hasText: 'Thumb to the post.' })).toBeVisible();
  await page.getByRole('button', { name: 'Change it' }).click();
  await page.getByRole('button', { name: 'Back to the shipped one' }).click();
  await expect(page.getByRole('heading', { name: 'The shipped version' })).toBeVisible();
});
