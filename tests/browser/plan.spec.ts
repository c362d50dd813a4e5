import type { APIRequestContext, Page } from '@playwright/test';
import { expect } from './clean-page';
import { test } from './signed-in';

// One student, one plan: each goes on from the one before.
test.describe.configure({ mode: 'serial' });

async function idOf(request: APIRequestContext, name: string): Promise<string> {
  const { students } = (await (await request.get('/api/v1/students')).json()) as { students: { id: string; name: string }[] };
  return students.find((s) => s.name === name)!.id;
}

const weeks = (page: Page) => page.getByRole('region', { name: 'The weeks' });
const stones = (page: Page) => weeks(page).getByRole('button');

test('eight weeks are planned, changed before they are kept, and kept', async ({ page, request, expectRefusals }) => {
  expectRefusals();
  const id = await idOf(request, 'Greta Lindqvist-Moss');
  await page.goto(`/students/${id}/plan`);
  await expect(page.getByRole('heading', { name: 'As it would be' })).toBeVisible();
  const sessions = await stones(page).count();
  await expect(weeks(page).getByText('back-off', { exact: true })).toHaveCount(2);
  // A slip is said at its field, and nothing typed is lost.
  await page.getByRole('textbox', { name: 'Weeks' }).fill('3');
  await expect(page.getByText('Between 4 and 16.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Weeks' }).fill('4');
  await expect(weeks(page).getByText('back-off', { exact: true })).toHaveCount(1);
  expect(await stones(page).count()).toBeLessThan(sessions);
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(page.getByText('The plan is kept, and its sessions are laid out.')).toBeVisible();
  await expect(page.getByText('Version 1')).toBeVisible();
  await stones(page).first().click();
  await expect(page.getByRole('heading', { name: 'Why' })).toBeVisible();
  await page.getByRole('link', { name: 'Open the session' }).click();
  await expect(page.getByRole('heading', { name: 'What shaped it' })).toBeVisible();
});

test('a session moves by keyboard where the rules let it; where they do not, it says why and stays', async ({ page, request }) => {
  const id = await idOf(request, 'Greta Lindqvist-Moss');
  type Day = { day: string; half: string; state: string };
  const standing = (await (await request.get(`/api/v1/students/${id}/programme`)).json()) as { plan: { weeks: { days: Day[] }[] } };
  const days = standing.plan.weeks.flatMap((w) => w.days).filter((d) => d.state === 'planned');
  const after = (day: string, n: number) => new Date(Date.parse(`${day}T12:00:00Z`) + n * 86_400_000).toISOString().slice(0, 10);
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

test('two coaches on one plan: the second one is told, and loses nothing', async ({ page, request, expectRefusals }) => {
  expectRefusals();
  const id = await idOf(request, 'Greta Lindqvist-Moss');
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
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(page.getByText('Somebody else kept another version of this plan meanwhile')).toBeVisible();
  await page.getByRole('button', { name: 'Keep this plan' }).click();
  await expect(page.getByText('The plan is kept, and its sessions are laid out.')).toBeVisible();
});
