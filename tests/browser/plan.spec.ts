import { consentToAll, noToTheRest } from './intake';
import AxeBuilder from '@axe-core/playwright';
import type { APIRequestContext, Page } from '@playwright/test';
import ICAL from 'ical.js';
import { expect } from './clean-page';
import { test } from './signed-in';
import { wear } from './themes';

// One student, one plan: each goes on from the one before.
test.describe.configure({ mode: 'serial' });

async function idOf(request: APIRequestContext, name: string): Promise<string> {
  const { students } = (await (await request.get('/api/v1/students')).json()) as { students: { id: string; name: string }[] };
  return students.find((s) => s.name === name)!.id;
}

const after = (day: string, n: number) => new Date(Date.parse(`${day}T12:00:00Z`) + n * 86_400_000).toISOString().slice(0, 10);

/** A day as the stones say it. */
const said = (day: string) =>
  new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' }).format(new Date(`${day}T12:00:00Z`)).replace(',', '');

/** A session that may be put on another day of its own week. */
async function aMove(request: APIRequestContext, id: string): Promise<{ day: string; to: string }> {
  type Day = { day: string; half: string; state: string; pinned: boolean };
  const { plan } = (await (await request.get(`/api/v1/students/${id}/programme`)).json()) as { plan: { weeks: { start: string; days: Day[] }[] } };
  for (const week of plan.weeks)
    for (const { day, half } of week.days.filter((d) => d.state === 'planned' && !d.pinned))
      for (const to of [1, 2, -1, -2].map((by) => after(day, by)).filter((to) => to >= week.start && to < after(week.start, 7))) {
        const edit = { kind: 'move', day, half, to, toHalf: null };
        const answer = await request.post(`/api/v1/students/${id}/programme/edits/try`, { data: { edit } });
        if (answer.ok() && ((await answer.json()) as { refused: unknown[] }).refused.length === 0) return { day, to };
      }
  throw new Error('nothing may be moved');
}

const weeks = (page: Page) => page.getByRole('region', { name: 'The weeks' });
const stones = (page: Page) => weeks(page).getByRole('button');

const name = 'Petra Vinterhav';

test('a new student is planned from intake to eight weeks: tried, changed before it is kept, and kept', async ({ page, request, expectRefusals }) => {
  expectRefusals();
  await page.goto('/students/new');
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Birth date').fill('1994-05-06');
  await page.getByLabel('Left leg, cm').fill('86');
  await page.getByLabel('Right leg, cm').fill('86');
  await page.getByRole('button', { name: 'Add Front split to the goals' }).click();
  await consentToAll(page);
  await noToTheRest(page);
  await page.getByRole('button', { name: 'Save the student' }).click();
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
  const id = await idOf(request, name);
  await page.goto(`/students/${id}/plan`);
  await expect(page.getByText('First they are')).toBeVisible();
  const courses = ['left', 'right'].map((side) => ({ decisionId: crypto.randomUUID(), side, stage: 3 }));
  const placed = await request.post(`/api/v1/students/${id}/skills`, {
    data: { id: crypto.randomUUID(), skill: 'front-split', approach: 'long-and-ramped', courses },
  });
  expect(placed.ok()).toBe(true);
  await page.goto(`/students/${id}/plan`);
  await expect(page.getByRole('heading', { name: 'As it would be' })).toBeVisible();
  const sessions = await stones(page).count();
  await expect(weeks(page).getByText('back-off', { exact: true })).toHaveCount(2);
  expect(await weeks(page).getByRole('listitem').count()).toBe(8);
  // A slip is said at its field, and nothing typed is lost.
  await page.getByRole('textbox', { name: 'Weeks' }).fill('3');
  await expect(page.getByText('Between 4 and 16.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Weeks' }).fill('4');
  await expect(weeks(page).getByText('back-off', { exact: true })).toHaveCount(1);
  expect(await stones(page).count()).toBeLessThan(sessions);
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  // Wherever the button was: what came of it is in sight, and the keyboard goes on from there.
  const said = page.getByText('The plan is kept, and its sessions are laid out.');
  await expect(said).toBeInViewport();
  await expect(said).toBeFocused();
  await expect(page.getByText('Version 1')).toBeVisible();
  await stones(page).first().click();
  await expect(page.getByRole('heading', { name: 'Why' })).toBeVisible();
  await page.getByRole('link', { name: 'Open the session' }).click();
  await expect(page.getByRole('heading', { name: 'What shaped it' })).toBeVisible();
});

test('a session moves by keyboard where the rules let it; where they do not, it says why and stays', async ({ page, request }) => {
  const id = await idOf(request, name);
  type Day = { day: string; half: string; state: string };
  const standing = (await (await request.get(`/api/v1/students/${id}/programme`)).json()) as { plan: { weeks: { days: Day[] }[] } };
  const days = standing.plan.weeks.flatMap((w) => w.days).filter((d) => d.state === 'planned');
  const tried: { at: number; by: number; refused: number }[] = [];
  for (const [at, day] of days.entries())
    for (const by of [1, 2, 3]) {
      const edit = { kind: 'move', day: day.day, half: day.half, to: after(day.day, by), toHalf: null };
      const answer = await request.post(`/api/v1/students/${id}/programme/edits/try`, { data: { edit } });
      if (answer.ok()) tried.push({ at, by, refused: ((await answer.json()) as { refused: unknown[] }).refused.length });
    }
  const forbidden = tried.find((t) => t.refused > 0)!;
  const allowed = tried.find((t) => t.refused === 0 && t.at !== forbidden.at)!;

  await page.goto(`/students/${id}/plan`);
  const planned = weeks(page).getByRole('button', { name: /planned/ });
  await planned.nth(forbidden.at).click();
  await page.getByLabel('Move to').fill(after(days[forbidden.at]!.day, forbidden.by));
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'It stays where it is' })).toBeVisible();
  await expect(page.getByText('Version 1')).toBeVisible();

  await planned.nth(allowed.at).focus();
  await page.keyboard.press('m');
  for (let i = 0; i < allowed.by; i++) await page.keyboard.press('ArrowRight');
  await expect(page.getByText(/moves to/)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByText(/moves to/)).toHaveCount(0);
  await page.keyboard.press('m');
  for (let i = 0; i < allowed.by; i++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Moved, and pinned there.')).toBeVisible();
  await expect(page.getByText('Version 2')).toBeVisible();
  await page.reload();
  await expect(weeks(page).getByRole('button', { name: /pinned/ })).toHaveCount(1);
});

test('a session is dragged to another day by mouse, pinned there, and set free again', async ({ page, request }) => {
  const id = await idOf(request, name);
  const { day, to } = await aMove(request, id);
  await page.goto(`/students/${id}/plan`);
  const stone = weeks(page).getByRole('button', { name: new RegExp(`^${said(day)},`) });
  // The column of the day it goes to, in the row of its own week.
  const row = weeks(page).getByRole('listitem').filter({ has: page.getByRole('button', { name: new RegExp(`^${said(day)},`) }) });
  const head = weeks(page).getByText(said(to).slice(0, 3), { exact: true });
  const [column, line] = [(await head.boundingBox())!, (await row.boundingBox())!];
  await stone.dragTo(row, { targetPosition: { x: column.x - line.x + 20, y: line.height / 2 } });
  await expect(page.getByText('Moved, and pinned there.')).toBeVisible();
  const there = weeks(page).getByRole('button', { name: new RegExp(`^${said(to)},.*pinned`) });
  await expect(there).toBeVisible();
  await page.getByRole('button', { name: 'Unpin' }).click();
  await expect(page.getByText('No longer pinned.')).toBeVisible();
  await expect(there).toHaveCount(0);
  await page.reload();
  await expect(weeks(page).getByRole('button', { name: new RegExp(`^${said(to)},`) })).toBeVisible();
  await expect(there).toHaveCount(0);
});

/** One coach begins to change the plan, and another keeps a version of it meanwhile. */
async function changeWhileAnotherKeeps(page: Page, request: APIRequestContext) {
  const id = await idOf(request, name);
  await page.goto(`/students/${id}/plan`);
  await page.getByRole('button', { name: /Change the programme|Plan again/ }).click();
  await expect(page.getByRole('button', { name: 'Keep this plan' })).toBeEnabled();
  const standing = (await (await request.get(`/api/v1/students/${id}/programme`)).json()) as {
    plan: { number: number; sketch: object };
  };
  const other = await request.post(`/api/v1/students/${id}/programme`, {
    data: { id: crypto.randomUUID(), basedOn: standing.plan.number, sketch: standing.plan.sketch },
  });
  expect(other.status()).toBe(201);
}

test('two coaches on one plan: the second one is told, and loses nothing', async ({ page, request, expectRefusals }) => {
  expectRefusals();
  await changeWhileAnotherKeeps(page, request);
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(page.getByText('Somebody else kept another version of this plan meanwhile')).toBeVisible();
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(page.getByText('The plan is kept, and its sessions are laid out.')).toBeVisible();
});

test('what another coach does meanwhile is told before one keeps a version over it', async ({ page, request, expectRefusals }) => {
  expectRefusals();
  await changeWhileAnotherKeeps(page, request);
  // The page hears of it by itself; what one was changing stays, and is not put over theirs unawares.
  await expect(page.getByText('Somebody else kept another version of this plan meanwhile')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('heading', { name: 'As it would be' })).toBeVisible();
  await page.getByRole('button', { name: 'Work mine out again' }).click();
  await expect(page.getByText('Somebody else kept another version of this plan meanwhile')).toBeHidden();
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(page.getByText('The plan is kept, and its sessions are laid out.')).toBeVisible();
});

test('a gate is passed, and the plan that follows says what changes and why before it is kept', async ({ page, request }) => {
  const id = await idOf(request, name);
  const decided = await request.post(`/api/v1/students/${id}/skills/front-split/decisions`, {
    data: { id: crypto.randomUUID(), side: 'left', kind: 'override', fromStage: 3, reason: 'Shown at the workshop, all of it.' },
  });
  expect(decided.status(), await decided.text()).toBe(201);
  await page.goto(`/students/${id}/plan`);
  await expect(page.getByText('Front split: the stage changed; the plan still trains stage 3.')).toBeVisible();
  await page.getByRole('button', { name: 'Plan again' }).click();
  const changes = page.getByRole('region', { name: 'What changes and why' });
  await expect(changes).toContainText('the stage of Front split changed');
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(page.getByText('The plan is kept, and its sessions are laid out.')).toBeVisible();
  await expect(page.getByText('the plan still trains stage 3')).toHaveCount(0);
  // What was before stays readable, with what changed then.
  await page.getByRole('link', { name: /^Version \d+$/ }).first().click();
  await expect(page.getByRole('heading', { name: /^Version \d+$/ })).toBeVisible();
  await expect(page.getByRole('region', { name: 'What changes and why' })).toContainText('the stage of Front split changed');
  await page.getByRole('link', { name: 'Version 1', exact: true }).click();
  await expect(page.getByText('the first plan').first()).toBeVisible();
});

test('what if there were more time on such a day is worked out, and kept only where one wants it', async ({ page, request }) => {
  const id = await idOf(request, name);
  await page.goto(`/students/${id}/plan`);
  await weeks(page).getByRole('button', { name: /planned/ }).last().click();
  await page.getByRole('button', { name: /^on \w+days$/ }).click();
  await expect(page.getByRole('heading', { name: 'As it would be' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'What changes and why' })).toContainText('its minutes changed');
  await page.getByRole('button', { name: 'Leave it as it was' }).click();
  await expect(page.getByRole('heading', { name: 'The weeks ahead' })).toBeVisible();
});

test('a series has a light first week and days for something of their own', async ({ page, request }) => {
  const id = await idOf(request, name);
  await page.goto(`/students/${id}/plan`);
  await page.getByRole('button', { name: /Change the programme|Plan again/ }).click();
  await page.getByRole('button', { name: '30-day series' }).click();
  await expect(weeks(page).getByRole('listitem')).toHaveCount(5);
  await expect(stones(page)).not.toHaveCount(0);
  await expect(page.getByText('Days for something of their own (14)')).toBeVisible();
  await page.getByLabel('One day to be ready for').fill(new Date(Date.now() + 50 * 86_400_000).toISOString().slice(0, 10));
  await page.getByRole('button', { name: 'Prepare for it' }).click();
  await expect(page.getByText(/^Front split by .* cannot be met/)).toBeVisible();
  for (const theme of ['chalk', 'slate'] as const) {
    await wear(page, theme);
    expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  }
  await page.setViewportSize({ width: 390, height: 844 });
  await expect(page.getByText(/^Week 1 of/)).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await page.getByRole('button', { name: 'The week after' }).click();
  await expect(page.getByText(/^Week 2 of/)).toBeVisible();
});

test('a missed fortnight is said, and the new plan takes it in', async ({ page, request }) => {
  const id = await idOf(request, 'Teodor Vance');
  await page.goto(`/students/${id}/plan`);
  await expect(page.getByText(/sessions were missed, 17 days since the last one: 30 % less, and re-test first/)).toBeVisible();
  await expect(page.getByText(/^Middle split by .* cannot be met: \d gates are left/)).toBeVisible();
  await page.getByRole('button', { name: 'Plan again' }).click();
  const changes = page.getByRole('region', { name: 'What changes and why' });
  await expect(changes).toBeVisible();
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(page.getByText('The plan is kept, and its sessions are laid out.')).toBeVisible();
  await expect(page.getByText(/sessions were missed/)).toHaveCount(0);
});

test('a calendar is made, read by another parser at the right hours, and revoked', async ({ page, request }) => {
  const id = await idOf(request, name);
  await page.goto(`/students/${id}/plan`);
  const calendar = page.getByRole('region', { name: 'Calendar' });
  await calendar.getByRole('button', { name: 'Make a link' }).click();
  const link = await calendar.getByRole('textbox', { name: /Whoever has it can read/ }).inputValue();
  await calendar.getByLabel('Afternoons at').fill('18:30');
  await expect(calendar.getByText('The calendar shows the new time')).toBeVisible();
  const read = await page.request.get(link);
  const component = new ICAL.Component(ICAL.parse(await read.text()) as unknown[]);
  for (const zone of component.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(new ICAL.Timezone(zone));
  const events = component.getAllSubcomponents('vevent').map((e) => new ICAL.Event(e));
  expect(events.length).toBeGreaterThan(5);
  for (const event of events) {
    expect(event.startDate.zone.tzid).toBe('Europe/Oslo');
    // The same hour by the clock in Oslo, whatever the zone makes of it in UTC.
    const oslo = new Intl.DateTimeFormat('en-GB', { timeZone: 'Europe/Oslo', hour: '2-digit', minute: '2-digit' }).format(event.startDate.toJSDate());
    expect(oslo).toMatch(/^(18:30|09:00)$/);
    expect(event.duration.toSeconds()).toBeGreaterThan(600);
  }
  await calendar.getByRole('button', { name: 'Revoke the link' }).click();
  await expect(calendar.getByRole('button', { name: 'Make a link' })).toBeVisible();
  expect((await page.request.get(link)).status()).toBe(404);
});

test('a programme is ended, asked twice; nothing of it is left to come, and another can follow', async ({ page, request }) => {
  const id = await idOf(request, name);
  await page.goto(`/students/${id}/plan`);
  await page.getByRole('button', { name: /Change the programme|Plan again/ }).click();
  await page.getByRole('button', { name: 'End the programme' }).click();
  await page.getByRole('button', { name: 'Go on with it' }).click();
  await page.getByRole('button', { name: 'End the programme' }).click();
  await page.getByRole('button', { name: 'End it' }).click();
  await expect(page.getByText('The programme is over')).toBeVisible();
  await page.goto(`/students/${id}/plan`);
  await expect(page.getByRole('heading', { name: 'As it would be' })).toBeVisible();
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(page.getByText('The plan is kept, and its sessions are laid out.')).toBeVisible();
});
