import type { BrowserContext, Page } from '@playwright/test';
import { expect, test } from './clean-page';
import { signIn } from './studio.mjs';

/** Whatever a coach begins can be left, ended, moved, taken back; nothing typed is lost on the way. */
async function made(context: BrowserContext, name: string, more: object = {}, stage = 1): Promise<string> {
  await signIn(context);
  const id = crypto.randomUUID();
  const student = {
    name, about: null, birthDate: '1990-05-06', leftLegCm: 86, rightLegCm: 86, bodyweightKg: null, breathSeconds: 4.5,
    sensationCeiling: 7, splitStandard: 'square', blocksOwned: 4, sessionMinutes: 30, ...more,
  };
  const post = async (path: string, data: object, status: number) => {
    const answer = await context.request.post(`/api/v1/students${path}`, { data });
    expect(answer.status(), await answer.text()).toBe(status);
  };
  await post('', { id, student, consents: [{ kind: 'training', given: true }] }, 201);
  const { questions } = (await (await context.request.get('/api/v1/catalogue')).json()) as { questions: { key: string }[] };
  await post(`/${id}/answers`, { answers: questions.map((q) => ({ question: q.key, yes: false })) }, 204);
  await post(
    `/${id}/skills`,
    {
      id: crypto.randomUUID(),
      skill: 'front-split',
      approach: 'long-and-ramped',
      courses: ['left', 'right'].map((side) => ({ decisionId: crypto.randomUUID(), side, stage })),
    },
    201,
  );
  return id;
}

async function planned(context: BrowserContext, student: string): Promise<string> {
  const id = crypto.randomUUID();
  const answer = await context.request.post(`/api/v1/students/${student}/sessions`, { data: { id, date: null, minutes: 30, second: true } });
  expect(answer.status(), await answer.text()).toBe(201);
  return id;
}

test('a planned session is deleted, brought back, and moved to another day', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  const student = await made(context, 'Edda Moves-Sessions');
  const session = await planned(context, student);
  await page.goto(`/sessions/${session}`);
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(page).toHaveURL(/\/sessions$/);
  await expect(page.getByText('No sessions yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: 'Run it' })).toBeVisible();

  const day = (ahead: number) => new Date(Date.now() + ahead * 24 * 3600 * 1000).toISOString().slice(0, 10);
  await page.getByRole('button', { name: 'Move…' }).click();
  await page.getByLabel('To which day?').fill(day(-3));
  await page.getByRole('button', { name: 'Make it for that day' }).click();
  await expect(page.getByText('This day is over.')).toBeVisible();
  await expect(page.getByLabel('To which day?')).toHaveValue(day(-3));
  await page.getByLabel('To which day?').fill(day(2));
  await page.getByRole('button', { name: 'Make it for that day' }).click();
  await expect(page.getByLabel('To which day?')).toHaveCount(0);
  await expect(page.getByRole('link', { name: 'Run it' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: 'Run it' })).toBeVisible();
});

test('a session under way is ended from its sheet, and reopened', async ({ page, context }) => {
  const student = await made(context, 'Edda Ends-Sessions');
  const session = await planned(context, student);
  await page.clock.install();
  await page.goto(`/sessions/${session}/run`);
  await page.getByRole('button', { name: 'Run', exact: true }).click();
  await page.clock.runFor(330_000);
  await expect(page.getByText('all logged')).toBeVisible();
  await page.getByRole('link', { name: 'Sheet' }).click();
  await page.getByRole('button', { name: 'End it here' }).click();
  await expect(page.getByRole('region', { name: 'What was done' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: 'Go on' })).toBeVisible();
});

test('archiving asks, and is taken back', async ({ page, context }) => {
  const student = await made(context, 'Edda Archived');
  await page.goto(`/students/${student}/edit`);
  await page.getByRole('button', { name: 'Archive this student…' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByRole('heading', { name: 'Archive Edda Archived?' })).toBeVisible();
  // The focus stays inside, and Escape leaves everything as it was.
  for (let i = 0; i < 5; i++) await page.keyboard.press('Tab');
  expect(await dialog.evaluate((d) => d.contains(document.activeElement) || document.activeElement === document.body)).toBe(true);
  await page.keyboard.press('Escape');
  await expect(dialog).toHaveCount(0);
  await page.getByRole('button', { name: 'Archive this student…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Archive', exact: true }).click();
  await expect(page.getByText(/· archived/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/· archived/)).toHaveCount(0);
});

test.beforeEach(({ context }) => context.setDefaultTimeout(20_000));

async function sit(page: Page, context: BrowserContext, student: string, measures: string[]): Promise<void> {
  const id = crypto.randomUUID();
  const answer = await context.request.post(`/api/v1/students/${student}/sittings`, { data: { id, scope: 'single', measures, cold: false } });
  expect(answer.status(), await answer.text()).toBe(201);
  await page.goto(`/students/${student}/bench/${id}`);
}

test('a sitting with trials that are not saved is not ended without a question', async ({ page, context }) => {
  const student = await made(context, 'Edda Sits');
  await sit(page, context, student, ['knee-to-wall']);
  const field = page.getByRole('region', { name: 'Left side' }).getByRole('textbox', { name: /^Trial 1/ });
  await field.fill('9.8');
  await expect(page.getByRole('button', { name: /^Trial 1, 9.8/ })).toBeVisible();
  await page.getByRole('button', { name: 'End the sitting' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Knee to wall');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: /^Trial 1, 9.8/ })).toBeVisible();
});

test('left and right stay in line, and the field in focus is never under the bar', async ({ page, context }) => {
  const student = await made(context, 'Edda On-A-Phone With-A-Name-Of-Forty-Letters');
  for (const size of [
    { width: 1280, height: 800 },
    { width: 1024, height: 768 },
    { width: 390, height: 844 },
  ]) {
    await page.setViewportSize(size);
    await sit(page, context, student, ['knee-to-wall']);
    const boxes: { y: number }[] = [];
    // One side says more than the other.
    await page.getByRole('region', { name: 'Left side' }).getByRole('textbox', { name: /^Trial/ }).fill('9.8');
    await expect(page.getByRole('button', { name: /^Trial 1, 9.8/ })).toBeVisible();
    for (const side of ['Left', 'Right']) {
      const panel = page.getByRole('region', { name: `${side} side` });
      const field = panel.getByRole('textbox', { name: /^Trial/ });
      await field.focus();
      const bar = (await page.getByRole('button', { name: 'Save and go on' }).boundingBox())!;
      const box = (await field.boundingBox())!;
      expect(box.y + box.height, `${side} at ${size.width}`).toBeLessThanOrEqual(bar.y);
      boxes.push(box);
    }
    if (size.width >= 640) expect(Math.abs(boxes[0]!.y - boxes[1]!.y), `rows at ${size.width}`).toBeLessThan(1);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(size.width);
  }
});

test('notes are found, pinned, corrected, struck out and taken back; body words reach the floor', async ({ page, context }) => {
  const student = await made(context, 'Edda Notes', { bodyWords: [{ tag: 'wrist', word: 'paws' }] });
  await page.goto(`/students/${student}/notes`);
  for (const text of ['Works nights until spring.', 'The left hip likes a cushion.']) {
    await page.getByLabel('A note').fill(text);
    await page.getByRole('button', { name: 'Write it down' }).click();
    await expect(page.getByRole('region', { name: 'Notes' }).getByText(text)).toBeVisible();
  }
  const list = page.getByRole('region', { name: 'Notes' });
  await page.getByLabel('Find').fill('CUSHION');
  await expect(list.getByText('Works nights until spring.')).toHaveCount(0);
  await expect(list.getByText('The left hip likes a cushion.')).toBeVisible();
  await page.getByLabel('Find').fill('xylophone');
  await expect(list.getByText('No note has these words.')).toBeVisible();
  await page.getByLabel('Find').fill('');
  await expect(list.getByText('Works nights until spring.')).toBeVisible();

  const session = await planned(context, student);
  await page.goto(`/sessions/${session}/run`);
  await page.getByRole('button', { name: /^Pain/ }).click();
  await page.getByRole('button', { name: /^Dull pain/ }).click();
  await expect(page.getByRole('group', { name: 'Where?' }).getByRole('button', { name: /paws/ })).toBeVisible();
});

test('a round that nobody confirmed is said on the sheet, and counts from then on', async ({ page, context }) => {
  const student = await made(context, 'Edda Says-Numbers', {}, 3);
  const session = await planned(context, student);
  await page.goto(`/sessions/${session}/log`);
  await page.getByRole('button', { name: 'Log it as planned' }).click();
  const done = page.getByRole('region', { name: 'What was done' });
  const line = done.getByRole('listitem').filter({ hasText: 'not confirmed' }).first();
  await line.getByRole('button', { name: 'Say the number' }).click();
  await line.getByLabel(/^Round 1/).fill('lang');
  await line.getByRole('button', { name: 'It was seen' }).click();
  await expect(line.getByText('Write a number, such as 21.')).toBeVisible();
  const before = await done.getByText('not confirmed').count();
  for (const field of await line.getByLabel(/^Round \d/).all()) await field.fill('12');
  await line.getByRole('button', { name: 'It was seen' }).click();
  await expect(done.getByText('not confirmed')).toHaveCount(before - 1);
});

test('of two decisions in the same seconds the second one changes nothing, says so, and shows where the side stands', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  const student = await made(context, 'Edda Decided-Twice', {}, 3);
  // Nothing is heard of the other one: so it is within the same seconds.
  await page.route('**/pulse', (route) => route.fulfill({ status: 304 }));
  await page.goto(`/students/${student}`);
  const decide = page.getByRole('group', { name: /^Decide for left/ });
  await decide.getByRole('button', { name: 'Step back…' }).click();
  await page.getByLabel('Why step back? (if you like)').fill('Tired for a week');
  const first = await context.request.post(`/api/v1/students/${student}/skills/front-split/decisions`, {
    data: { id: crypto.randomUUID(), side: 'left', kind: 'stepBack', fromStage: 3, reason: null },
  });
  expect(first.ok(), await first.text()).toBe(true);
  await page.getByRole('button', { name: 'Back to 2' }).click();
  await expect(page.getByText(/Somebody has decided meanwhile/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Back to 1' })).toBeVisible();
  await expect(page.getByLabel('Why step back? (if you like)')).toHaveValue('Tired for a week');
});

test('trials of a side that another coach has read meanwhile are named, not lost without a word', async ({ page, context }) => {
  const student = await made(context, 'Edda Read-Twice');
  const heard = page.waitForResponse((r) => r.url().endsWith('/pulse'));
  await sit(page, context, student, ['knee-to-wall']);
  await heard;
  const left = page.getByRole('region', { name: 'Left side' });
  await left.getByRole('textbox', { name: /^Trial 1/ }).fill('9.8');
  await expect(page.getByRole('button', { name: /^Trial 1, 9.8/ })).toBeVisible();
  const sitting = page.url().split('/').at(-1)!;
  const reading = {
    id: crypto.randomUUID(), measure: 'knee-to-wall', side: 'left', warmth: 'warm', instrument: 'tape', trials: [11, 11.2, 11.1], compensations: [],
    standard: null, quality: null, sensation: null, pain: null, note: null, takenAt: null, confirmed: false, sittingId: sitting,
  };
  const other = await context.request.post(`/api/v1/students/${student}/readings`, { data: reading });
  expect(other.ok(), await other.text()).toBe(true);
  await expect(page.getByText(/Somebody else has saved this meanwhile. Not saved from here: Knee to wall, left: 9.8/)).toBeVisible();
  await expect(page.getByText(/11\.1/).first()).toBeVisible();
});

test('what is said before the start reaches the session, is said otherwise, and a consent that is withdrawn closes it', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  const student = await made(context, 'Ilse Before-Start', {}, 3);
  const session = await planned(context, student);
  await page.goto(`/sessions/${session}`);
  const before = page.getByRole('region', { name: 'Before the start' });
  const consent = (name: RegExp, answer: string) =>
    before.getByRole('radiogroup', { name }).getByText(answer, { exact: true }).click();
  await consent(/^Pictures/, 'No');
  await consent(/^Touch/, 'No');
  await consent(/^Records/, 'Yes');
  await before.getByLabel('Ill or feverish today').check();
  await expect(before.getByText('No session today: rest.')).toBeVisible();

  // The server is gone: what is typed stays, and is sent once it is back.
  await page.route('**/check-ins', (route) => route.abort());
  await before.getByRole('button', { name: 'Write it down' }).click();
  await expect(before.getByRole('alert')).toBeVisible();
  await expect(before.getByLabel('Ill or feverish today')).toBeChecked();
  await page.unroute('**/check-ins');
  await before.getByRole('button', { name: 'Write it down' }).click();
  await expect(before.getByText('ill or feverish')).toBeVisible();
  await expect(before.getByText('Hands off: no consent to touch.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Run it' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Make it again for today' }).click();
  await expect(page.getByText('Nothing may be trained yet')).toBeVisible();

  // A slip: said otherwise, it is another day.
  await before.getByRole('button', { name: 'Say it otherwise' }).click();
  await before.getByLabel('Ill or feverish today').uncheck();
  await before.getByRole('button', { name: 'Add a place: Sore, painful or injured' }).click();
  await before.getByRole('combobox', { name: 'Where?' }).selectOption('wrist');
  await before.getByRole('combobox', { name: 'Side' }).selectOption('right');
  await before.getByRole('combobox', { name: 'What is it?' }).selectOption('pain');
  await before.getByRole('button', { name: '4', exact: true }).click();
  await before.getByRole('button', { name: 'Add it' }).click();
  await before.getByRole('button', { name: 'Write it down' }).click();
  await expect(before.getByText(/^Asked at .*right wrist painful, 4 of 10/)).toBeVisible();
  await page.reload();
  await expect(before.getByText(/^Asked at .*right wrist painful, 4 of 10/)).toBeVisible();

  // Withdrawn in another tab: closed here at once.
  const other = await context.newPage();
  await other.goto(`/students/${student}/cautions`);
  await expect(other.getByText('Off limits: wrist')).toBeVisible();
  await other.getByRole('button', { name: 'Withdraw: Training' }).click();
  await other.getByRole('button', { name: 'Withdraw it: this holds at once' }).click();
  await expect(other.getByText('Nothing is trained.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Run it' })).toHaveCount(0, { timeout: 10_000 });
  await other.goto(`/students/${student}/pictures`);
  await expect(other.getByText('The consent to pictures was withdrawn')).toBeVisible();
  await other.goto(`/students/${student}/history`);
  await expect(other.getByText('Before a session: right wrist painful, 4 of 10')).toBeVisible();
  await expect(other.getByText('Consent, training: no')).toBeVisible();
});
