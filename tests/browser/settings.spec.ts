import type { Browser, Page } from '@playwright/test';
import { consentToAll, noToTheRest } from './intake';
import { expect, test } from './clean-page';
import { OwnServer } from './own-server';
import { setupCode } from './studio.mjs';

/** One's own settings, the studio's, its team; and the plain timer, which needs no student. */
const own = new OwnServer(5188, false);
const owner = { email: 'una@quay.example', password: 'a-long-password' };
const coach = { name: 'Tova Lind', email: 'tova@quay.example', password: 'another-long-one', role: 'coach' };

test.describe.configure({ mode: 'serial' });

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
test.afterEach(() => expect(own.errors).toEqual([]));

async function signedIn(browser: Browser, who: { email: string; password: string }): Promise<Page> {
  const context = await browser.newContext({ baseURL: own.url, viewport: { width: 1280, height: 800 } });
  context.setDefaultTimeout(20_000);
  const answer = await context.request.post('/api/v1/accounts/sign-in', { data: { email: who.email, password: who.password } });
  expect(answer.ok(), await answer.text()).toBe(true);
  return context.newPage();
}

test('a practice is typed, run by the clock, survives a reload, and is named', async ({ browser }) => {
  const page = await signedIn(browser, owner);
  await page.clock.install({ time: new Date('2035-03-05T10:00:00Z') });
  await page.goto('/timer');
  const now = page.getByRole('region', { name: 'Now' });
  const form = page.getByRole('form', { name: 'Practice' });
  await expect(form.getByRole('status')).toHaveText(/2:45\s+in all/);
  await form.getByLabel('Hold', { exact: true }).fill('zwölf');
  await expect(form.getByText('Write a number.')).toBeVisible();
  await form.getByLabel('Counted in').selectOption('breaths');
  await form.getByLabel('Hold', { exact: true }).fill('3');
  await form.getByLabel('One breath, s').fill('1');
  await expect(form.getByText('Between 2 and 20.')).toBeVisible();
  await form.getByLabel('One breath, s').fill('4');
  await form.getByLabel('Effort rises during the hold').check();
  await form.getByLabel('Full for the last, s').fill('12');
  await expect(form.getByText('At most 11: shorter than the hold.')).toBeVisible();
  await form.getByLabel('Full for the last, s').fill('2');
  await form.getByLabel('Settle before, s').fill('6');
  await form.getByLabel('Rounds', { exact: true }).fill('1');
  // Count-in, settle, hold, switch, settle, hold.
  await expect(form.getByRole('status')).toHaveText(/0:46\s+in all/);

  await page.getByRole('heading', { name: 'Timer' }).first().click();
  await page.keyboard.press('Space');
  await expect(now.getByText('Left')).toBeVisible();
  await page.clock.runFor(5_500);
  await expect(now.getByText('Settle')).toBeVisible();
  await page.clock.runFor(10_500);
  await expect(now.getByText('Breath 2 of 3')).toBeVisible();
  await page.clock.runFor(8_500);
  await expect(now.getByText('Switch sides')).toBeVisible();
  await expect(now.getByText('Right')).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Go on' })).toBeVisible();
  const left = await now.getByTestId('count').innerText();
  await page.reload();
  await expect(now.getByText('Switch sides')).toBeVisible();
  await expect(now.getByTestId('count')).toHaveText(left);
  await page.getByRole('button', { name: 'Next' }).click();
  await page.getByRole('button', { name: 'Next' }).click();
  await expect(now.getByText('Breath 1 of 3')).toBeVisible();
  await page.getByRole('button', { name: 'Go on' }).click();
  await page.clock.runFor(13_000);
  await expect(now.getByText('Done')).toBeVisible();

  const presets = page.getByRole('region', { name: 'Presets' });
  await presets.getByLabel('Name this one').fill('Wall breaths');
  await presets.getByRole('button', { name: 'Keep it' }).click();
  await expect(presets.getByRole('button', { name: 'Wall breaths', exact: true })).toBeVisible();
  await presets.getByLabel('Name this one').fill('wall breaths');
  await presets.getByRole('button', { name: 'Keep it' }).click();
  await expect(presets.getByText('Something has this name already.')).toBeVisible();
  await presets.getByRole('button', { name: 'Rename Wall breaths' }).click();
  await presets.getByLabel('New name').fill('Long wall');
  await presets.getByRole('button', { name: 'Rename', exact: true }).click();
  await form.getByLabel('Rounds', { exact: true }).fill('2');
  await presets.getByRole('button', { name: 'Save into “Long wall”' }).click();
  await expect(presets.getByText('1:57')).toBeVisible();
  await form.getByLabel('Rounds', { exact: true }).fill('7');
  await presets.getByRole('button', { name: 'Long wall', exact: true }).click();
  await expect(form.getByLabel('Rounds', { exact: true })).toHaveValue('2');
  await presets.getByRole('button', { name: 'Delete Long wall' }).click();
  await expect(presets.getByText('None yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(presets.getByRole('button', { name: 'Long wall', exact: true })).toBeVisible();
  await page.context().close();
});

test('the clock runs on when the server is gone, and says so', async ({ browser }) => {
  const page = await signedIn(browser, owner);
  await page.goto('/timer');
  await expect(page.getByRole('form', { name: 'Practice' }).getByRole('status')).toHaveText(/in all/);
  await page.route('**/api/v1/**', (route) => route.abort());
  await page.getByLabel('Rounds', { exact: true }).fill('9');
  await expect(page.getByText('The clock still runs what it had.')).toBeVisible();
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await page.context().close();
});

test('the owner adds a coach, corrects what was typed, lets them go and takes them back', async ({ browser }) => {
  const page = await signedIn(browser, owner);
  await page.goto('/settings/team');
  await page.getByLabel('Name', { exact: true }).fill('Tova Lint');
  await page.getByLabel('E-mail').fill(coach.email);
  await page.getByLabel('First password', { exact: true }).fill(coach.password);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('button', { name: 'Change Tova Lint' }).click();
  const row = page.getByRole('listitem').filter({ hasText: coach.email });
  await row.getByLabel('Name', { exact: true }).fill('');
  await row.getByRole('button', { name: 'Save' }).click();
  await expect(row.getByText('Fill this in.')).toBeVisible();
  await row.getByLabel('Name', { exact: true }).fill(coach.name);
  await row.getByRole('button', { name: 'Save' }).click();
  await expect(row.getByText(coach.name)).toBeVisible();

  const hers = await signedIn(browser, coach);
  await hers.goto('/students');
  await expect(hers.getByRole('link', { name: 'Add a student' })).toBeVisible();
  await page.getByRole('button', { name: `${coach.name} has left` }).click();
  await page.getByRole('button', { name: 'Leave it' }).click();
  await page.getByRole('button', { name: `${coach.name} has left` }).click();
  await page.getByRole('button', { name: 'They have left' }).click();
  await expect(row.getByText(/left on/)).toBeVisible();
  await hers.goto('/students');
  await expect(hers).toHaveURL(/sign-in/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row.getByText('Coach', { exact: false })).toBeVisible();
  await hers.getByLabel('E-mail').fill(coach.email);
  await hers.getByLabel('Password').fill(coach.password);
  await hers.getByRole('button', { name: 'Sign in' }).click();
  await expect(hers.getByRole('link', { name: 'Add a student' })).toBeVisible();
  // A coach sees the studio's settings and changes none of them.
  await hers.goto('/settings/studio');
  await expect(hers.getByLabel('Name of the studio')).toBeDisabled();
  await hers.context().close();
  await page.context().close();
});

test('one’s own name, theme, keys and password', async ({ browser }) => {
  const page = await signedIn(browser, coach);
  await page.goto('/settings');
  await page.getByLabel('Your name').fill('Tova Lind-Berg');
  await page.getByRole('button', { name: 'Save the name' }).click();
  await expect(page.getByRole('navigation', { name: 'Rooms' }).getByText('Tova Lind-Berg')).toBeVisible();
  await page.getByRole('radio', { name: 'Dark' }).check();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'slate');
  await page.getByRole('checkbox', { name: /^Single-letter keys/ }).uncheck();
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'slate');
  await expect(page.getByRole('checkbox', { name: /^Single-letter keys/ })).not.toBeChecked();
  await page.getByRole('radio', { name: 'As this device' }).check();
  await expect(page.locator('html')).not.toHaveAttribute('data-theme');
  // Another address is asked the password for; the form of the team page has neither of one's own.
  await page.getByLabel('You sign in as').fill('lind@quay.example');
  await page.getByRole('button', { name: 'Change the address' }).click();
  await expect(page.getByText('Fill this in.')).toBeVisible();
  await page.getByLabel('Your password, for the address').fill(coach.password);
  await page.getByRole('button', { name: 'Change the address' }).click();
  await expect(page.getByText('Changed.')).toBeVisible();
  await page.getByLabel('You sign in as').fill(coach.email);
  await page.getByLabel('Your password, for the address').fill(coach.password);
  const back = page.waitForResponse((r) => r.url().endsWith('/accounts/me') && r.request().method() === 'PUT');
  await page.getByRole('button', { name: 'Change the address' }).click();
  expect((await back).ok()).toBe(true);
  await page.getByLabel('Your password now').fill('not-this-one');
  await page.getByLabel('New password').fill('a-third-password');
  await page.getByRole('button', { name: 'Change the password' }).click();
  await expect(page.getByText('This is not your password.')).toBeVisible();
  await expect(page.getByLabel('New password')).toHaveValue('a-third-password');
  await page.getByLabel('Your password now').fill(coach.password);
  await page.getByRole('button', { name: 'Change the password' }).click();
  await expect(page.getByText('Changed.')).toBeVisible();
  await page.goto('/students');
  await expect(page.getByRole('link', { name: 'Add a student' })).toBeVisible();
  await page.context().close();
});

test('the studio says what another time zone changes, its hours and its stand-ins; two tabs are told apart', async ({ browser }) => {
  const page = await signedIn(browser, owner);
  const other = await page.context().newPage();
  await page.goto('/settings/studio');
  await other.goto('/settings/studio');
  await expect(other.getByLabel('Name of the studio')).toHaveValue('Quay Loft');
  await page.getByLabel('Time zone').selectOption('Asia/Tokyo');
  await expect(page.getByText('Nothing of the last 120 days would count for another day.')).toBeVisible();
  await page.getByRole('button', { name: 'Add a time' }).click();
  await page.getByLabel('Opens, time 1').fill('21:00');
  await page.getByRole('button', { name: 'Save the studio' }).click();
  await expect(page.getByText('It closes after it opens.')).toBeVisible();
  await page.getByLabel('Opens, time 1').fill('07:30');
  await page.getByLabel('Strap').fill('a scarf');
  await page.getByRole('button', { name: 'Save the studio' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();

  await other.getByLabel('Name of the studio').fill('Quay Attic');
  await other.getByRole('button', { name: 'Save the studio' }).click();
  await expect(other.getByText(/changed this meanwhile/)).toBeVisible();
  await expect(other.getByLabel('Name of the studio')).toHaveValue('Quay Attic');
  await other.getByRole('button', { name: 'Show what stands now' }).click();
  await expect(other.getByLabel('Opens, time 1')).toHaveValue('07:30');
  await expect(other.getByLabel('Strap')).toHaveValue('a scarf');
  await page.context().close();
});

test('two coaches on one student: what one saves the other sees within seconds, and a conflict is explained', async ({ browser }) => {
  const una = await signedIn(browser, owner);
  const tova = await signedIn(browser, { ...coach, password: 'a-third-password' });
  await una.goto('/students/new');
  await una.getByLabel('Name', { exact: true }).fill('Ada Quill');
  // The studio is open on Mondays only.
  await una.getByRole('button', { name: 'Add a day' }).click();
  await una.getByLabel('Day 1', { exact: true }).selectOption('Tuesday');
  await expect(una.getByText('The studio is closed then: at home?')).toBeVisible();
  await una.getByLabel('Day 1', { exact: true }).selectOption('Monday');
  await expect(una.getByText('The studio is closed then: at home?')).toHaveCount(0);
  await una.getByLabel('Birth date').fill('1994-05-06');
  await una.getByLabel('Left leg, cm').fill('86');
  await una.getByLabel('Right leg, cm').fill('86');
  await consentToAll(una);
  await noToTheRest(una);
  await una.getByRole('button', { name: 'Save the student' }).click();
  await expect(una.getByRole('heading', { name: 'Ada Quill', level: 1 })).toBeVisible();
  const student = new URL(una.url()).pathname;

  // Nothing new is a 304, and the page is not loaded again.
  const quiet = una.waitForResponse((r) => r.url().endsWith('/pulse') && r.status() === 304);
  await una.goto(`${student}/readings`);
  await quiet;
  const id = student.split('/').at(-1)!;
  const reading = { id: crypto.randomUUID(), measure: 'passive-slr', side: 'left', warmth: 'warm', instrument: 'goniometer', trials: [80, 81, 82], compensations: [], standard: null, quality: null, sensation: null, pain: null, note: null, takenAt: null, confirmed: false };
  const read = await tova.context().request.post(`/api/v1/students/${id}/readings`, { data: reading, headers: { Origin: own.url } });
  expect(read.ok(), await read.text()).toBe(true);
  await expect(una.getByText(/saved something at/)).toContainText('Tova');
  await expect(una.getByText('81.0°').first()).toBeVisible();

  // Both have the body data open: what Una did not touch follows, what both typed is asked.
  await una.goto(`${student}/edit`);
  await tova.goto(`${student}/edit`);
  await una.getByLabel('Left leg, cm').fill('87');
  await tova.getByLabel('Left leg, cm').fill('88');
  await tova.getByLabel('Bodyweight, kg').fill('61');
  await tova.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(tova.getByRole('button', { name: 'Save', exact: true })).toHaveCount(0);
  await expect(una.getByText(/Left leg, cm was changed by somebody else too/)).toContainText('to “88”');
  await expect(una.getByLabel('Bodyweight, kg')).toHaveValue('61');
  await expect(una.getByLabel('Left leg, cm')).toHaveValue('87');
  // What was typed is still there after a reload, and the question too.
  await una.reload();
  await expect(una.getByLabel('Left leg, cm')).toHaveValue('87');
  await una.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(una.getByRole('button', { name: 'Save', exact: true })).toHaveCount(0);

  // Both answer the screen.
  await una.goto(`${student}/cautions`);
  await tova.goto(`${student}/cautions`);
  const neck = (page: Page) => page.getByRole('radiogroup', { name: /neck/i }).first();
  await neck(una).getByText('Yes', { exact: true }).click();
  await tova.getByRole('radiogroup', { name: /eye|glaucoma/i }).first().getByText('Yes', { exact: true }).click();
  await tova.getByRole('button', { name: /^Save the answers/ }).click();
  await expect(tova.getByRole('button', { name: /^Save the answers/ })).toHaveCount(0);
  await expect(una.getByRole('complementary', { name: 'What is barred today' })).toContainText(/head/i);
  await una.getByRole('button', { name: /^Save the answers/ }).click();
  await expect(una.getByRole('button', { name: /^Save the answers/ })).toHaveCount(0);
  await una.goto(`${student}/history`);
  await expect(una.getByRole('region', { name: 'Who wrote down what' }).getByText(/now yes/i)).toHaveCount(2);
  await una.context().close();
  await tova.context().close();
});
