import type { Locator, Page } from '@playwright/test';
import { consentToAll, noToTheRest } from './intake';
import { expect, test } from './clean-page';
import { setupCode } from './studio.mjs';

test.describe.configure({ mode: 'serial' });

const owner = { studio: 'Harbour Room', name: 'Ines Falk', email: 'ines@harbour.example', password: 'a-long-password' };
const student = 'Mira Oxley';

async function signIn(page: Page) {
  await page.goto('/sign-in');
  await page.getByLabel('E-mail').fill(owner.email);
  await page.getByLabel('Password').fill(owner.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page).toHaveURL(/today/);
  await page.getByRole('link', { name: 'Students', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Students' })).toBeVisible();
}

async function open(page: Page, tab?: string) {
  await signIn(page);
  await page.getByRole('link', { name: student, exact: true }).click();
  await expect(page.getByRole('heading', { name: student })).toBeVisible();
  if (tab) await page.getByRole('navigation', { name: 'Student' }).getByRole('link', { name: tab }).click();
}

/** Three trials on one side, by keyboard. */
async function take(page: Page, side: 'Left' | 'Right', trials: number[]) {
  const panel: Locator = page.getByRole('region', { name: `${side} side` });
  const field = panel.getByRole('textbox', { name: /^Trial/ });
  for (const trial of trials) {
    await field.fill(String(trial));
    await field.press('Enter');
    await expect(field).toHaveValue('');
  }
  await expect(panel.getByLabel(/Trials taken/).locator('[data-trial]')).toHaveText(trials.map((t) => t.toFixed(1)));
}

test('the first person in creates the owner, with clear messages on the way', async ({ page, expectRefusals }) => {
  expectRefusals();
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Create the owner' })).toBeVisible();
  await page.getByLabel('Setup code').fill('from memory');
  await page.getByLabel('Studio').fill(owner.studio);
  await page.getByLabel('Your name').fill(owner.name);
  await page.getByLabel('E-mail').fill(owner.email);
  await page.getByLabel('Password').fill('short');
  await page.getByRole('button', { name: 'Create the owner' }).click();
  await expect(page.getByText('This is not the code in the server’s log.')).toBeVisible();
  await page.getByLabel('Setup code').fill(setupCode);
  await page.getByRole('button', { name: 'Create the owner' }).click();
  await expect(page.getByText('At least 10 characters.')).toBeVisible();
  await expect(page.getByLabel('Studio')).toHaveValue(owner.studio);
  await page.getByLabel('Password').fill(owner.password);
  await page.getByRole('button', { name: 'Create the owner' }).click();
  await expect(page.getByText('Nobody is here yet.')).toBeVisible();
  await page.goto('/welcome');
  await expect(page.getByRole('heading', { name: 'Students' })).toBeVisible();
});

test('a sign-in that ends in one tab is said in the other, and nothing typed is lost', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  await signIn(page);
  // What was asked before the sign-in ended is answered after it.
  let release = () => undefined as void;
  const ended = new Promise<void>((resolve) => (release = resolve));
  await page.route('**/compute/bars', async (route) => {
    const response = await route.fetch();
    await ended;
    await route.fulfill({ response });
  });
  const asked = page.waitForRequest('**/compute/bars');
  await page.getByRole('link', { name: 'Add a student' }).click();
  const late = await asked;
  await page.getByLabel('Name', { exact: true }).fill('Half Typed');
  const other = await context.newPage();
  await other.goto('/students');
  await other.getByRole('button', { name: 'Sign out' }).click();
  // What is typed in another tab is named before it is thrown away from this device.
  await expect(other.getByRole('dialog')).toContainText('The intake of Half Typed is not saved.');
  await other.getByRole('button', { name: 'Discard it and sign out' }).click();
  await expect(other.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  const refused = page.waitForResponse('**/api/v1/students');
  await page.getByRole('button', { name: 'Save the student' }).click();
  await refused;
  release();
  await (await late.response())?.finished();
  await expect(page.getByText('what you typed stays here', { exact: false }).first()).toBeVisible();
  await page.unroute('**/compute/bars');
  await signIn(other);
  await page.getByRole('button', { name: 'Save the student' }).click();
  await expect(page.getByRole('heading', { name: 'Half Typed' })).toBeVisible();
});

test('an intake left half-way stays the intake of its own person, and a slip is cleared', async ({ page }) => {
  await signIn(page);
  await page.getByRole('link', { name: 'Add a student' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Ada Quill');
  const chosen = page.getByRole('group', { name: /^Intake screen/ }).getByRole('radio', { checked: true });
  const yes = (question: RegExp) => page.getByRole('radiogroup', { name: question }).getByText('Yes', { exact: true });
  await yes(/neck/i).first().click();
  await noToTheRest(page);
  await expect(page.getByText('Every question is answered for Ada Quill.')).toBeVisible();
  await page.reload();
  await expect(page.getByText('Every question is answered for Ada Quill.')).toBeVisible();
  // The next person begins with nothing of hers.
  await page.getByRole('link', { name: 'Students', exact: true }).click();
  await page.getByRole('link', { name: 'Add a student' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('');
  await expect(page.getByText(/questions are open/)).toBeVisible();
  await expect(chosen).toHaveCount(0);
  await page.getByLabel('Name', { exact: true }).fill('Bo Tarn');
  await yes(/neck/i).first().click();
  await page.getByRole('button', { name: /^Clear the answer/ }).click();
  await expect(chosen).toHaveCount(0);
  await page.getByRole('button', { name: 'Start afresh' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('');
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Throw away the intake of Bo Tarn' }).click();
  // Hers is gone on with by name, and gone when it is thrown away.
  await page.getByRole('button', { name: 'Go on with Ada Quill' }).click();
  await expect(page.getByText('Every question is answered for Ada Quill.')).toBeVisible();
  await page.getByRole('button', { name: 'Start afresh' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('');
  await expect(page.getByRole('heading', { name: 'Not saved yet on this device' })).toHaveCount(0);
});

test('a student is added; bad body data is named at the field and nothing typed is lost', async ({ page, expectRefusals }) => {
  expectRefusals();
  await signIn(page);
  await page.getByRole('link', { name: 'Add a student' }).click();
  await page.getByLabel('Name', { exact: true }).fill(student);
  await page.getByLabel('About', { exact: true }).fill('bell founder');
  await page.getByLabel('Birth date').fill('2090-01-01');
  await page.getByLabel('Left leg, cm').fill('0');
  await page.getByLabel('Right leg, cm').fill('abc');
  await page.getByRole('button', { name: 'Save the student' }).click();
  const field = (label: string) => page.locator('div', { has: page.getByLabel(label) }).last();
  await expect(field('Right leg, cm')).toContainText('Write a number');
  await page.getByLabel('Right leg, cm').fill('86');
  await page.getByRole('button', { name: 'Save the student' }).click();
  await expect(field('Left leg, cm')).toContainText('Between 40 and 130.');
  await expect(field('Birth date')).toContainText('This lies in the future.');
  await page.reload();
  await expect(page.getByLabel('About', { exact: true })).toHaveValue('bell founder');
  await page.getByLabel('Left leg, cm').fill('86,5');
  await page.getByLabel('Birth date').fill('1994-05-06');
  await page.getByRole('button', { name: 'Add Front split to the goals' }).click();
  await page.getByRole('button', { name: 'Add a day' }).click();
  await page.getByLabel('Minutes on day 1').fill('soon');

  // Each answer shows at once what it bars and why.
  const bars = page.getByRole('complementary', { name: 'What the answers bar' });
  const neck = page.getByRole('radiogroup', { name: /neck injury or neck surgery/ });
  await neck.getByText('Yes').click();
  await expect(bars.getByRole('listitem').filter({ hasText: 'neck' })).toContainText('Neck injury or arm tingling');
  await neck.getByText('No').click();
  await expect(bars).toContainText('Nothing so far.');
  await consentToAll(page);
  await noToTheRest(page);
  await page.getByRole('button', { name: 'Save the student' }).click();
  await expect(page.getByText('Write a number, such as 21.5.')).toBeVisible();
  await page.getByLabel('Minutes on day 1').fill('45');
  await page.getByRole('button', { name: 'Save the student' }).click();
  await expect(page.getByRole('heading', { name: student })).toBeVisible();
  await expect(page.getByText('no cautions')).toBeVisible();
});

test('both sides of six measures are read, wrong trials are named and kept, and the verdict changes on the arch', async ({
  page,
}) => {
  test.setTimeout(480_000);
  await open(page);
  await expect(page.getByText('Suggested: stage 1').first()).toBeVisible();
  await page.getByRole('button', { name: 'Confirm the stages' }).click();
  await expect(page.getByRole('button', { name: 'left stage 1 Prepare, keep training, 1 of 5 tests met' })).toBeVisible();
  await page.getByRole('navigation', { name: 'Student' }).getByRole('link', { name: 'Bench' }).click();
  for (const name of ['raise, passive', 'raise, active', 'Hip extension', 'Lunge chest gap', 'fold gap', 'Front split gap'])
    await page.getByRole('checkbox', { name }).check();
  await page.getByRole('button', { name: 'Read 6 chosen' }).click();
  const left = page.getByRole('region', { name: 'Left side' });
  const field = left.getByRole('textbox', { name: /^Trial/ });
  const save = page.getByRole('button', { name: 'Save and go on' });

  await field.fill('abc');
  await field.press('Enter');
  await expect(left.getByText('Write a number')).toBeVisible();
  await expect(field).toHaveValue('abc');
  for (const trial of [81, 82, 83, 82, 81]) {
    await field.fill(String(trial));
    await field.press('Enter');
    await expect(field).toHaveValue('');
  }
  await field.fill('82');
  await field.press('Enter');
  await expect(left.getByText('One to five trials.')).toBeVisible();
  await expect(field).toHaveValue('82');
  await page.reload();
  await expect(field).toHaveValue('82');
  await field.fill('');
  for (let i = 0; i < 5; i++) await field.press('Backspace');

  await take(page, 'Left', [81, 82, 83]);
  await expect(left).toContainText('82.0°');
  await take(page, 'Right', [79, 80, 78]);
  await save.click();
  await expect(page.getByRole('status').filter({ hasText: 'Straight-leg raise, passive is saved' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Straight-leg raise, active' })).toBeVisible();
  await take(page, 'Left', [64, 65, 66]);
  await take(page, 'Right', [62, 63, 64]);
  await save.click();
  await expect(page.getByRole('heading', { name: 'Hip extension' })).toBeVisible();
  await take(page, 'Left', [6, 7, 6]);
  await take(page, 'Right', [7, 8, 7]);
  await save.click();
  await expect(page.getByRole('heading', { name: 'Straight-leg fold gap' })).toBeVisible();
  await take(page, 'Left', [24, 23, 24]);
  await take(page, 'Right', [22, 23, 22]);
  await save.click();
  await expect(page.getByRole('heading', { name: 'Lunge chest gap' })).toBeVisible();
  await take(page, 'Left', [14, 14, 13.5]);
  await take(page, 'Right', [13, 13, 13.5]);
  await save.click();

  await expect(page.getByRole('heading', { name: 'Front split gap' })).toBeVisible();
  await field.fill('-3');
  await field.press('Enter');
  await expect(left.getByText('Between 0 and 80.')).toBeVisible();
  await expect(field).toHaveValue('-3');
  await field.fill('');
  await take(page, 'Left', [44, 45, 44]);
  await expect(left).toContainText(/Split angle\s*118\.\d°/);
  await take(page, 'Right', [42, 43, 42]);
  await save.click();
  await expect(page.getByText('12 of 12 read')).toBeVisible();
  await page.getByRole('button', { name: 'End the sitting' }).click();
  await expect(page.getByRole('button', { name: 'left stage 1 Prepare, keep training, 3 of 5 tests met' })).toBeVisible();
});

/** The test of the day asks in the middle of a session: whether it did. */
async function answeredWarm(page: Page): Promise<boolean> {
  const warm = page.getByRole('region', { name: 'Today’s test: Warm enough for deep rear-thigh work' });
  if (!(await warm.isVisible())) return false;
  for (const asked of ['Have you been moving for at least 8 minutes?', 'Do hips and thighs feel warm?'])
    await warm.getByRole('group', { name: asked }).getByRole('button', { name: 'Yes' }).click();
  await warm.getByRole('button', { name: 'Go on' }).click();
  return true;
}

test('the decision is taken, the session is run with a fast clock, and its exposure counts', async ({ page, expectRefusals }) => {
  expectRefusals();
  test.setTimeout(480_000);
  await open(page);
  const why = page.getByRole('complementary', { name: 'Why' });
  await expect(why.getByRole('heading', { name: 'Why the gate of the left front leg is closed' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Advance to 2' })).toBeDisabled();

  await why.getByRole('button', { name: 'Override…' }).click();
  await why.getByLabel('Why advance although the gate is not open?').fill('too thin');
  await why.getByRole('button', { name: 'Advance to 2 anyway' }).click();
  await expect(why.getByText('Write at least 10 characters.')).toBeVisible();
  await expect(why.getByLabel('Why advance although the gate is not open?')).toHaveValue('too thin');
  await why.getByLabel('Why advance although the gate is not open?').fill('Danced for years, range is there.');
  await why.getByRole('button', { name: 'Advance to 2 anyway' }).click();
  await expect(page.getByRole('button', { name: /^left stage 2 Lines, waiting/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'left stage 1 Prepare, passed' })).toBeVisible();

  const tests = page.getByRole('region', { name: /^right/ }).getByRole('listitem').filter({ hasText: 'Sessions at this stage' });
  await expect(tests).toContainText('0 of 4 sessions');

  await page.clock.install();
  await page.getByLabel('Minutes').fill('abc');
  await page.getByRole('button', { name: 'Make the next session' }).click();
  await expect(page.getByText('Write a number')).toBeVisible();
  await page.getByLabel('Minutes').fill('30');
  await page.getByRole('button', { name: 'Make the next session' }).click();
  await expect(page.getByText('First week of this skill: the first-week dose, and no attempts.')).toBeVisible();
  await page.getByRole('link', { name: 'Run it' }).click();
  await page.getByRole('button', { name: 'Run', exact: true }).click();
  for (let minute = 0; minute < 32; minute++) {
    await page.clock.runFor(60_000);
    if (await answeredWarm(page)) await page.getByRole('button', { name: 'Run', exact: true }).click();
  }
  await expect(page.getByText('Done', { exact: true })).toBeVisible();
  await page.clock.resume();
  await expect(page.getByText('Everything is logged.')).toBeVisible();

  await page.getByRole('link', { name: 'What was done' }).click();
  await expect(page.getByRole('region', { name: 'What was done' }).getByRole('listitem').filter({ hasText: 'Low lunge' })).toHaveCount(2);
  await page.getByRole('link', { name: student, exact: true }).click();
  await expect(tests).toContainText('1 of 4 sessions');
  await expect(page.getByRole('listitem').filter({ hasText: 'Free of pain' }).first()).toContainText('1 of 2 sessions logged');
});

test('pain in a session ends the region and closes the gate', async ({ page }) => {
  await open(page);
  await page.getByRole('button', { name: 'Make the next session' }).click();
  // Before the runner is there: its own timers are the clock's.
  await page.clock.install();
  await page.getByRole('link', { name: 'Run it' }).click();
  await page.getByRole('button', { name: 'Run', exact: true }).click();
  for (let step = 0; step < 4; step++) await page.keyboard.press('s');
  await page.clock.runFor(40_000);
  await page.keyboard.press('p');
  await page.getByRole('button', { name: /^Sharp pain/ }).click();
  await page.getByRole('button', { name: 'back of the thigh' }).click();
  await page.getByRole('group', { name: 'Pain, of 10' }).getByRole('button', { name: '7' }).click();
  await page.getByRole('button', { name: 'Write it down' }).click();
  await page.clock.resume();
  await expect(page.getByText('all logged')).toBeVisible();
  const now = page.getByRole('region', { name: 'Now' });
  for (let part = 0; part < 40 && ((await answeredWarm(page)) || (await now.isVisible())); part++) {
    await expect(now).toBeVisible();
    expect(await now.innerText()).not.toMatch(/Leg swings|Hinge repeats|Pyramid fold|Pike walk|Standing circles/);
    await page.keyboard.press('s');
  }
  await expect(page.getByText('Everything is logged.')).toBeVisible();
  await page.getByRole('link', { name: 'See what it changed' }).click();
  const pain = page.getByRole('region', { name: /^right/ }).getByRole('listitem').filter({ hasText: 'Free of pain' });
  await expect(pain).toContainText('pain in a region of this ladder');
});

test('a wrong reading is voided with a reason and stops counting', async ({ page }) => {
  await open(page, 'Readings');
  const reading = page.getByRole('listitem').filter({ hasText: 'Straight-leg raise, active' }).first();
  await reading.getByRole('button', { name: 'Void…' }).click();
  await reading.getByLabel('Why is this reading void?').fill('leg was held');
  await reading.getByRole('button', { name: 'Void the reading' }).click();
  await expect(page.getByText('Void: leg was held')).toBeVisible();
});

test('a caution that is answered later bars the plan that was made before', async ({ page }) => {
  await open(page);
  await page.getByRole('button', { name: 'Make the next session' }).click();
  await expect(page.getByRole('link', { name: 'Run it' })).toBeVisible();
  const sheet = page.url();
  await page.getByRole('link', { name: student, exact: true }).click();
  await page.getByRole('navigation', { name: 'Student' }).getByRole('link', { name: 'Cautions' }).click();
  await page.getByRole('radiogroup', { name: /replaced hip/ }).getByText('Yes').click();
  await expect(page.getByText('Off limits: front of the hip, inner thigh, deep hip bend.')).toBeVisible();
  await page.getByRole('button', { name: 'Save the answers' }).click();
  await expect(page.getByText('Off limits: front of the hip', { exact: true })).toBeVisible();
  await page.goto(sheet);
  await expect(page.getByText('A caution was added since this session was made.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Run it' })).toHaveCount(0);
  await page.getByRole('link', { name: student, exact: true }).click();
  await expect(page.getByRole('heading', { name: /^Why the gate .*is barred/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Override…' })).toHaveCount(0);
});
