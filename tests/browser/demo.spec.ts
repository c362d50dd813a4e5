import { expect, test } from './clean-page';
import { signIn } from './studio.mjs';

test.describe.configure({ mode: 'serial' });

test('the start page of the demo lets a coach in', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Enter as Tamsin' }).click();
  await expect(page.getByRole('link', { name: 'Sunniva Dahl', exact: true })).toBeVisible();
});

test('the leading side waits, with its tests still shown', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/students');
  await page.getByRole('link', { name: 'Sunniva Dahl', exact: true }).click();
  const right = page.getByRole('button', { name: /^right stage 4 Middle hands, waiting/ });
  await right.click();
  const why = page.getByRole('complementary', { name: 'Why' });
  await expect(why.getByRole('heading', { name: 'Why the right front leg is waiting' })).toBeVisible();
  await expect(why).toContainText('It opens when left reaches stage 4.');
  await expect(why.getByRole('button', { name: /^Advance/ })).toBeDisabled();
  await expect(page.getByRole('region', { name: /^right/ }).getByRole('listitem')).toHaveCount(7);
  await page.keyboard.press('ArrowLeft');
  await expect(why.getByRole('heading', { name: 'Why the gate of the left front leg says re-test' })).toBeVisible();
  await expect(why).toContainText(/Re-test the left front split gap/);
});

test('an open gate is decided in place, and a year later the log says why', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/readiness');
  const ready = page.getByRole('list', { name: 'Ready to decide' });
  await expect(ready.getByRole('listitem')).toHaveCount(3);
  await ready.getByRole('button', { name: 'Nkechi Strand, Front split, left: show the evidence' }).click();
  const evidence = page.getByRole('complementary', { name: 'Evidence for Nkechi Strand' });
  await expect(evidence.getByRole('heading', { name: 'Why the gate of the left front leg is open' })).toBeVisible();
  await expect(evidence.getByRole('list', { name: 'Tests of the gate' })).toContainText('past the line');
  await evidence.getByRole('group', { name: 'Decide for Nkechi Strand, left' }).getByRole('button', { name: 'Advance to 5' }).click();
  await expect(ready.getByRole('listitem')).toHaveCount(2);

  // The audit's question: why was she moved up on that day?
  await page.goto('/students');
  await page.getByRole('link', { name: 'Nkechi Strand', exact: true }).click();
  await page.getByRole('link', { name: 'Decisions' }).click();
  const log = page.getByRole('listitem').filter({ hasText: 'Advanced: stage 4 to 5' }).first();
  await expect(log).toContainText('Front split');
  await expect(log).toContainText('Imre Solheim');
  await log.getByText('why').click();
  const why = log.getByRole('region', { name: /what the gate said: ready; hips square; Front split, version 2/ });
  const gap = why.getByRole('listitem').filter({ hasText: 'Front split gap' });
  await expect(gap).toContainText('≤ 22 cm');
  await expect(gap).toContainText(/met/);
  await expect(why.getByRole('listitem').filter({ hasText: 'Supported split, two heights' })).toContainText('met, 2 of 2');
  await expect(why.getByRole('listitem').filter({ hasText: 'Free of pain' })).toContainText('met');
});

test('the board shows who is nearly there, stalled and barred, by skill', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/readiness?group=blocked');
  const barred = page.getByRole('list', { name: 'Barred' });
  await expect(barred.getByRole('listitem')).toHaveCount(2);
  await page.getByLabel('Skill').selectOption('crow');
  await expect(barred.getByRole('listitem')).toHaveCount(1);
  const marisol = page.getByRole('complementary', { name: 'Evidence for Marisol Okonjo' });
  await expect(marisol.getByRole('heading', { name: 'Why the gate is barred' })).toBeVisible();
  await expect(marisol).toContainText('A step back is suggested.');
  await expect(marisol.getByRole('button', { name: 'Override…' })).toHaveCount(0);
  await page.goto('/readiness?group=stalled&skill=front-split');
  await expect(page.getByRole('complementary', { name: /Evidence for Greta/ })).toContainText(/Front split gap, (left|right) has not moved for \d+ days/);
});

test('a lapsed clearance brings the bar back, says so, and the supported version is what is planned', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/students');
  await page.getByRole('link', { name: 'Rosalind Achterberg', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Why the gate is barred' })).toBeVisible();
  await page.getByRole('link', { name: /^Open (today’s session|the session that is waiting)$/ }).click();
  await expect(page.getByText('Legs up, supported').first()).toBeVisible();
  await page.goBack();
  await page.getByRole('link', { name: 'Cautions' }).click();
  const today = page.getByRole('complementary', { name: 'What is barred today' });
  await expect(today).toContainText('Off limits: neck');
  await expect(today).toContainText(/a clearance lapsed on .* and the bar is back/);
});

test('a ladder is copied, changed, tried on the students and stored; a mistake is named where it is', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/ladders');
  await page.getByRole('button', { name: 'Copy Handstand' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Handstand, patient');
  const trial = page.getByRole('complementary', { name: 'On your students' });
  await expect(trial).toContainText('None of 1 gates would say anything else.');
  const stage = page.getByRole('region', { name: 'Stage 4' });
  const line = stage.getByRole('group', { name: 'Range or line test' }).first();
  await line.getByLabel('Threshold').fill('500');
  await expect(line.getByRole('alert')).toContainText('Between 0 and 90.');
  await expect(page.getByRole('button', { name: /^Store as version/ })).toBeDisabled();
  await line.getByLabel('Threshold').fill('12');
  await expect(trial).toContainText('1 of 1 gates would say something else');
  await expect(trial.getByRole('listitem').filter({ hasText: 'Kofi Marchetti' })).toContainText('keep training');
  await page.getByRole('region', { name: 'Stage 3' }).getByRole('button', { name: 'Remove the way out test' }).click();
  await expect(trial).toContainText('The way out comes first');
  await page.getByRole('region', { name: 'Stage 3' }).getByLabel('Add a test').selectOption('exit');
  await page.getByRole('button', { name: 'Store as version 1' }).click();
  await expect(page.getByRole('heading', { name: 'Handstand, patient' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Export as JSON' })).toBeVisible();

  // Kofi keeps the shipped version until he is moved.
  await page.goto('/students');
  await page.getByRole('link', { name: 'Kofi Marchetti', exact: true }).click();
  await expect(page.getByText('Handstand, version 2')).toBeVisible();
  await page.getByText('Move to another version or ladder').click();
  await page.getByLabel('Move to').selectOption({ label: 'Handstand, patient, version 1' });
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await expect(page.getByText('Handstand, patient, version 1').first()).toBeVisible();
  await page.getByRole('link', { name: 'Decisions' }).click();
  await expect(page.getByText('Moved to another version: stage 4')).toBeVisible();

  // The next version, and everyone on the one before is moved at once.
  await page.goto('/ladders');
  await page.getByRole('link', { name: 'Handstand, patient' }).click();
  await page.getByRole('button', { name: 'Make the next version' }).click();
  await page.getByRole('region', { name: 'Stage 5' }).getByLabel('Threshold').first().fill('11');
  await page.getByRole('button', { name: 'Store as version 2' }).click();
  const on = page.getByRole('region', { name: 'On it' });
  await expect(on.getByRole('listitem')).toContainText('version 1');
  await on.getByRole('button', { name: 'Move Kofi Marchetti to version 2…' }).click();
  await expect(on.getByRole('group', { name: 'What version 2 would change' })).toContainText('No gate of theirs would say anything else.');
  await on.getByRole('button', { name: 'Yes, move' }).click();
  await expect(on.getByRole('listitem')).toContainText('version 2');
  await expect(on.getByRole('button')).toHaveCount(0);
});

test('an exported ladder comes back as a draft, and a broken file says so', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  await signIn(context);
  const file = JSON.parse(await (await context.request.get('/api/v1/ladders/crow/versions/1/file')).text());
  await page.goto('/ladders');
  const take = (text: string) =>
    page
      .getByLabel('Import a ladder')
      .setInputFiles({ name: 'crow.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await take('{ "name": "half a');
  await expect(page.getByText('This is no ladder file', { exact: false })).toBeVisible();
  await take(JSON.stringify({ ...file, name: 'Crow from a file' }));
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Crow from a file');
  await expect(page.getByRole('region', { name: 'Stage 7' })).toBeVisible();
  await expect(page.getByRole('complementary', { name: 'On your students' })).toContainText('would say anything else');
});

test('the policy bench draws both curves for three policies, in figures too', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/ladders/policy');
  await expect(page.getByRole('img', { name: /^Passed within 6 test days/ })).toBeVisible();
  await expect(page.getByRole('img', { name: /^Days until the ready pass/ })).toBeVisible();
  await page.getByLabel('z of one test').fill('much');
  await page.getByRole('button', { name: 'Run' }).click();
  await expect(page.getByText('Write a number, such as 21.5.')).toBeVisible();
  await page.getByLabel('z of one test').fill('2');
  await page.getByRole('button', { name: 'Run' }).click();
  await expect(page.getByRole('rowheader', { name: 'Your variant' })).toBeVisible();
});

test('coming back after four weeks asks for a new baseline and starts lightly', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/students');
  await expect(page.getByRole('listitem').filter({ hasText: 'Anselm Pike' })).toContainText('Back after 31 days: take a new baseline');
  await page.getByRole('link', { name: 'Anselm Pike', exact: true }).click();
  await expect(page.getByText('A step back is suggested.')).toBeVisible();
  // What the weeks had planned for today was planned for somebody who trained on.
  await page.getByRole('link', { name: 'Open today’s session' }).click();
  await expect(page.getByRole('link', { name: 'Run it' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Make it again for today' }).click();
  await expect(page.getByText(/31 days away: first-week dose/)).toBeVisible();
  // Knee twist is off limits to him.
  await expect(page.getByRole('link', { name: 'Pyramid fold' })).toBeVisible();
  await expect(page.getByRole('link', { name: /^Pigeon/ })).toHaveCount(0);
});

test('a student who is new gets a suggested stage from today’s baseline', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/students');
  await page.getByRole('link', { name: 'Dario Weft', exact: true }).click();
  await expect(page.getByText('Suggested: stage 1').first()).toBeVisible();
});

test('a form that is seen while placing is written down there, and opens the stages past it', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/students');
  await page.getByRole('link', { name: 'Dario Weft', exact: true }).click();
  await page.getByRole('radiogroup', { name: 'Skill' }).getByText('Middle split').click();
  await expect(page.getByText('At most stage 1')).toBeVisible();
  const seen = page.getByRole('group', { name: 'Seen just now at stage 1' });
  await seen.getByRole('checkbox', { name: 'Sits upright in a straddle' }).check();
  await seen.getByRole('button', { name: 'Write the form down' }).click();
  await expect(page.getByText('At most stage 5')).toBeVisible();
  await expect(seen.getByRole('checkbox')).toHaveCount(0);
});

test('an assistant reads everything and is offered no change', async ({ page, context }) => {
  await signIn(context, 'odile@saltlamp.example', 'lamp-works-reads');
  await page.goto('/students');
  await expect(page.getByRole('link', { name: 'Add a student' })).toHaveCount(0);
  await page.getByRole('link', { name: 'Greta Lindqvist-Moss', exact: true }).click();
  await expect(page.getByRole('heading', { name: /^Why the gate of the left front leg/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /Advance|Stay|Override|Make the next session/ })).toHaveCount(0);
});

test('a runner without the server keeps what was done and sends it later', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  await signIn(context);
  await page.goto('/students');
  await page.getByRole('link', { name: 'Greta Lindqvist-Moss', exact: true }).click();
  await page.getByRole('link', { name: 'Open today’s session' }).click();
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
