import type { APIRequestContext, Page } from '@playwright/test';
import { expect } from './clean-page';
import { test } from './signed-in';

/** A session of a student of the demo, made for today. */
async function make(request: APIRequestContext, name: string, minutes: number, beside: string[] = []): Promise<string> {
  const roster = (await (await request.get('/api/v1/students')).json()) as { students: { id: string; name: string }[] };
  const student = roster.students.find((s) => s.name === name)!.id;
  const id = crypto.randomUUID();
  const data = { id, date: null, minutes, skill: null, beside, second: true };
  expect((await request.post(`/api/v1/students/${student}/sessions`, { data })).status()).toBe(201);
  return id;
}

const verdict = (page: Page) => page.getByRole('complementary', { name: 'What it comes to' });

test('a coach changes a session until the checker refuses, undoes it, keeps the rest and takes it back', async ({ page, request, expectRefusals }) => {
  expectRefusals();
  const id = await make(request, 'Sunniva Dahl', 60);
  await page.goto(`/sessions/${id}`);
  await page.getByRole('link', { name: 'Change it' }).click();
  await expect(page.getByRole('heading', { name: 'Sunniva Dahl: change the session' })).toBeVisible();
  await expect(verdict(page).getByRole('button', { name: 'Keep it' })).toBeDisabled();

  // A preference is bent, and it is said.
  const first = page.getByRole('region', { name: 'End range, light to heavy' }).getByRole('button', { name: /^Remove / }).first();
  const gone = (await first.getAttribute('aria-label'))!.replace('Remove ', '');
  await first.click();
  await expect(page.getByRole('listitem', { name: gone, exact: true })).toHaveCount(0);

  // Wrists before weight on the hands: without them the checker refuses.
  await page.getByRole('button', { name: 'Remove Wrist series' }).click();
  await expect(verdict(page).getByRole('heading', { name: 'Not like this' })).toBeVisible();
  await expect(verdict(page)).toContainText('the wrists are not prepared before weight on the hands');
  await expect(verdict(page).getByRole('button', { name: 'Keep it' })).toBeDisabled();

  // A reload loses nothing of it.
  await page.reload();
  await expect(verdict(page)).toContainText('Your changes from before are here');
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Remove Wrist series' })).toBeVisible();
  await expect(verdict(page).getByRole('heading', { name: 'Not like this' })).toHaveCount(0);

  // A wrong number stays where it was typed, with its message.
  const raise = page.getByLabel('Seconds, Pulse raiser');
  await raise.fill('900');
  await raise.press('Tab');
  await expect(page.getByText('From 1 to 600.')).toBeVisible();
  await expect(raise).toHaveValue('900');
  await raise.fill('150');
  await raise.press('Tab');
  await expect(page.getByText('From 1 to 600.')).toHaveCount(0);

  await page.getByRole('button', { name: 'More about Pulse raiser' }).click();
  await page.getByLabel('Cue for this student, Pulse raiser').fill('Nose breathing only');
  await page.getByLabel('Cue for this student, Pulse raiser').press('Tab');
  await expect(verdict(page).getByRole('button', { name: 'Keep it' })).toBeEnabled();
  await verdict(page).getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Changed by hand.')).toBeVisible();
  await expect(page.getByText('“Nose breathing only”')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Run it' })).toBeVisible();
  await page.getByRole('button', { name: 'Take the change back' }).click();
  await expect(page.getByText('“Nose breathing only”')).toHaveCount(0);
});

test('a session is swapped, moved by keyboard and shortened', async ({ page, request }) => {
  const id = await make(request, 'Sunniva Dahl', 60);
  await page.goto(`/sessions/${id}/edit`);
  await page.getByRole('button', { name: /^Swap / }).nth(1).click();
  const picker = page.getByRole('dialog');
  const take = picker.getByRole('button', { name: /^Take / }).first();
  const taken = (await take.getAttribute('aria-label'))!.replace('Take ', '');
  await take.click();
  await expect(page.getByRole('listitem', { name: taken, exact: true })).toBeVisible();

  const up = page.getByRole('button', { name: `Move ${taken} up` });
  const rows = page.getByRole('listitem').and(page.locator('[draggable]'));
  const names = () => rows.evaluateAll((all) => all.map((r) => r.getAttribute('aria-label')));
  const before = (await names()).indexOf(taken);
  await up.focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(async () => (await names()).indexOf(taken)).toBe(before - 1);

  await page.getByLabel('Shorter or longer: minutes').fill('20');
  await page.getByRole('button', { name: 'Fit it' }).click();
  await expect(verdict(page)).toContainText('of 20 min');
  await verdict(page).getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('link', { name: 'Run it' })).toBeVisible();
});

test('sixty minutes are printed on one page, with boxes to tick and a line for notes', async ({ page, request }) => {
  for (const [name, beside] of [
    ['Sunniva Dahl', []],
    ['Nkechi Strand', ['deep-squat']],
  ] as const) {
    await page.goto(`/sessions/${await make(request, name, 60, [...beside])}/sheet`);
    await expect(page.getByRole('article', { name: 'Sheet' })).toBeVisible();
    const paper = (await page.pdf({ preferCSSPageSize: true })).toString('latin1');
    expect(paper.match(/\/Type\s*\/Page\b/g)).toHaveLength(1);
  }
  await page.getByRole('checkbox', { name: 'Pulse raiser is done' }).check();
  await page.reload();
  await expect(page.getByRole('checkbox', { name: 'Pulse raiser is done' })).toBeChecked();
});

test('two skills are trained in one session, and the sheet says which drill is for which', async ({ page, request }) => {
  const roster = (await (await request.get('/api/v1/students')).json()) as { students: { id: string; name: string }[] };
  await page.goto(`/students/${roster.students.find((s) => s.name === 'Nkechi Strand')!.id}/sessions`);
  await expect(page.getByRole('link', { name: 'Open today’s session' })).toBeVisible();
  await page.getByText('A second one for today').click();
  await page.getByLabel('Minutes').fill('60');
  await page.getByRole('group', { name: 'With it, in the same session' }).getByRole('checkbox').first().check();
  await page.getByRole('button', { name: 'Make a second one' }).click();
  await expect(page.getByRole('link', { name: 'Run it' })).toBeVisible();
  await expect(page.getByText(/(Front split and Deep squat|Deep squat and Front split) · /).first()).toBeVisible();
  await expect(page.getByRole('paragraph').filter({ hasText: /^Deep squat$/ }).first()).toBeVisible();
  await expect(page.getByRole('paragraph').filter({ hasText: /^Front split$/ }).first()).toBeVisible();
});

test('a drill is found in the library, with its versions, doses and loads', async ({ page }) => {
  await page.goto('/library');
  await page.getByRole('navigation', { name: 'Library' }).getByRole('link', { name: 'Drills' }).click();
  await page.getByLabel('Find a drill').fill('ramped');
  await page.getByRole('link', { name: 'Ramped split' }).click();
  await expect(page.getByRole('heading', { name: 'Versions, easiest first' })).toBeVisible();
  await expect(page.getByText(/Loads hamstring, heavily/).first()).toBeVisible();
  await expect(page.getByText('Front split, stages 4 to 7; core of 4, 5, 6')).toBeVisible();
});

test('a drill is copied, told in own words, shown by a clip, swapped into a session and watched on a phone', async ({ page, request, browser, baseURL, expectRefusals }) => {
  expectRefusals();
  await page.goto('/library/drills/low-lunge');
  page.setDefaultTimeout(20_000);
  await page.getByRole('button', { name: 'Make a copy of your own' }).click();
  const form = page.getByRole('region', { name: 'Your own' });
  await form.getByLabel('Name', { exact: true }).fill('Lunge at the lamp');
  await form.getByLabel('What is said, a line each').fill('Knee on the mat\nGrow tall');
  await form.getByLabel('Rounds').first().fill('99');
  await form.getByRole('button', { name: 'Keep it' }).click();
  await expect(form.getByText(/^From 1 to /)).toBeVisible();
  await expect(form.getByLabel('Name', { exact: true })).toHaveValue('Lunge at the lamp');
  await form.getByLabel('Rounds').first().fill('2');
  await form.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('heading', { name: 'Lunge at the lamp' })).toBeVisible();

  // A clip, recorded by the browser itself.
  const clip = await page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    canvas.width = canvas.height = 64;
    const draw = canvas.getContext('2d')!;
    const recorder = new MediaRecorder(canvas.captureStream(20), { mimeType: 'video/webm' });
    const pieces: Blob[] = [];
    recorder.ondataavailable = (e) => pieces.push(e.data);
    const done = new Promise((stopped) => (recorder.onstop = stopped));
    recorder.start();
    for (let i = 0; i < 20; i++) {
      draw.fillStyle = `rgb(${i * 12}, 80, 120)`;
      draw.fillRect(0, 0, 64, 64);
      await new Promise((next) => requestAnimationFrame(next));
    }
    recorder.stop();
    await done;
    return [...new Uint8Array(await new Blob(pieces).arrayBuffer())];
  });
  const first = page.getByLabel(/^Clip or picture of /).first();
  await first.setInputFiles({ name: 'x.webm', mimeType: 'video/webm', buffer: Buffer.from('no clip at all') });
  await expect(page.getByText('An mp4 or webm clip, or a PNG, JPEG or WebP picture up to 10 MiB.')).toBeVisible();
  await first.setInputFiles({ name: 'lunge.webm', mimeType: 'video/webm', buffer: Buffer.from(clip) });
  await expect(page.getByLabel(/^Clip of Lunge at the lamp/)).toBeVisible();
  const address = page.url();

  const id = await make(request, 'Sunniva Dahl', 60);
  await page.goto(`/sessions/${id}/edit`);
  await page.getByRole('button', { name: 'Add a drill' }).click();
  await page.getByRole('dialog').getByLabel('Find a drill').fill('lamp');
  await page.getByRole('dialog').getByRole('button', { name: 'Take Lunge at the lamp' }).click();
  await expect(page.getByRole('listitem', { name: 'Lunge at the lamp' })).toBeVisible();
  await verdict(page).getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('link', { name: 'Lunge at the lamp' })).toBeVisible();

  // On a phone: the name on the sheet leads to the clip, and it plays.
  const phone = await browser.newContext({ baseURL, viewport: { width: 390, height: 844 }, storageState: await page.context().storageState() });
  const small = await phone.newPage();
  await small.goto(`/sessions/${id}`);
  await small.getByRole('link', { name: 'Lunge at the lamp' }).click();
  await expect(small).toHaveURL(address);
  const video = small.getByLabel(/^Clip of Lunge at the lamp/);
  await video.evaluate((v: HTMLVideoElement) => v.play());
  await expect.poll(() => video.evaluate((v: HTMLVideoElement) => v.currentTime)).toBeGreaterThan(0);
  expect(await small.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await phone.close();

  await page.goto(address);
  await page.getByRole('button', { name: 'Take it out of the library' }).click();
  await expect(page.getByText('It is out of the library.').first()).toBeVisible();
});
