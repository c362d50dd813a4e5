import AxeBuilder from '@axe-core/playwright';
import type { APIRequestContext, Page } from '@playwright/test';
import { expect, test } from './clean-page';
import { test as signedIn } from './signed-in';
import { signIn } from './studio.mjs';
import { wear } from './themes';

type Line = { id: string; name: string };

async function idOf(request: APIRequestContext, name: string): Promise<string> {
  const roster = (await (await request.get('/api/v1/students')).json()) as { students: Line[] };
  return roster.students.find((s) => s.name === name)!.id;
}

async function sessionOf(request: APIRequestContext, student: string): Promise<string> {
  const id = crypto.randomUUID();
  const made = await request.post(`/api/v1/students/${student}/sessions`, { data: { id, date: null, minutes: 45, second: true } });
  expect(made.status()).toBe(201);
  return id;
}

async function sittingOf(request: APIRequestContext, student: string): Promise<string> {
  const id = crypto.randomUUID();
  const data = { id, scope: 'single', measures: ['seated-reach', 'side-plank-hold', 'kick-up-success'], cold: true };
  expect((await request.post(`/api/v1/students/${student}/sittings`, { data })).status()).toBe(201);
  return id;
}

const screens: { name: string; path: (r: APIRequestContext) => Promise<string>; ready: string | RegExp }[] = [
  { name: 'today', path: async () => '/today', ready: 'Who trains today' },
  { name: 'roster', path: async () => '/students', ready: 'Students' },
  { name: 'new student', path: async () => '/students/new', ready: 'New student' },
  { name: 'student', path: async (r) => `/students/${await idOf(r, 'Sunniva Dahl')}`, ready: /Why the gate of the left front leg/ },
  { name: 'placing', path: async (r) => `/students/${await idOf(r, 'Dario Weft')}`, ready: 'Put on a ladder' },
  { name: 'bilateral skill', path: async (r) => `/students/${await idOf(r, 'Teodor Vance')}`, ready: /Why the gate/ },
  { name: 'history', path: async (r) => `/students/${await idOf(r, 'Rosalind Achterberg')}/history`, ready: 'Who wrote down what' },
  { name: 'ladders', path: async () => '/ladders', ready: 'Ladders' },
  { name: 'ladder', path: async () => '/ladders/shoulderstand/2', ready: 'Shoulderstand and plow' },
  { name: 'policy bench', path: async () => '/ladders/policy', ready: 'Policy bench' },
  { name: 'bench', path: async (r) => `/students/${await idOf(r, 'Sunniva Dahl')}/bench`, ready: 'What the next gates still need' },
  {
    name: 'sitting',
    path: async (r) => `/students/${await idOf(r, 'Sunniva Dahl')}/bench/${await sittingOf(r, await idOf(r, 'Sunniva Dahl'))}`,
    ready: 'Seated reach',
  },
  { name: 'pictures', path: async (r) => `/students/${await idOf(r, 'Kofi Marchetti')}/pictures`, ready: 'Add a picture' },
  { name: 'series', path: async (r) => `/students/${await idOf(r, 'Sunniva Dahl')}/readings/front-split-gap/warm-square`, ready: 'Front split gap' },
  { name: 'studio readings', path: async () => '/readings', ready: 'Readings' },
  { name: 'library', path: async () => '/library', ready: 'Wrists, holds and lines' },
  { name: 'measure', path: async () => '/library/front-split-gap', ready: 'The shipped version' },
  { name: 'exchange', path: async () => '/exchange', ready: 'Readings in' },
  { name: 'readings', path: async (r) => `/students/${await idOf(r, 'Sunniva Dahl')}/readings`, ready: 'Sunniva Dahl' },
  { name: 'cautions', path: async (r) => `/students/${await idOf(r, 'Anselm Pike')}/cautions`, ready: 'Today' },
  { name: 'decisions', path: async (r) => `/students/${await idOf(r, 'Sunniva Dahl')}/decisions`, ready: 'Sunniva Dahl' },
  { name: 'sessions', path: async (r) => `/students/${await idOf(r, 'Sunniva Dahl')}/sessions`, ready: 'Sunniva Dahl' },
  { name: 'plan', path: async (r) => `/students/${await idOf(r, 'Sunniva Dahl')}/plan`, ready: 'The weeks ahead' },
  { name: 'plan version', path: async (r) => `/students/${await idOf(r, 'Sunniva Dahl')}/plan/1`, ready: 'Version 1' },
  { name: 'everybody’s weeks', path: async () => '/roster', ready: 'Everybody’s weeks' },
  { name: 'body', path: async (r) => `/students/${await idOf(r, 'Sunniva Dahl')}/edit`, ready: 'Sunniva Dahl' },
  { name: 'readiness', path: async () => '/readiness', ready: 'Readiness' },
  { name: 'sheet', path: async (r) => `/sessions/${await sessionOf(r, await idOf(r, 'Sunniva Dahl'))}`, ready: 'What shaped it' },
  { name: 'session editor', path: async (r) => `/sessions/${await sessionOf(r, await idOf(r, 'Sunniva Dahl'))}/edit`, ready: /change the session/ },
  { name: 'paper sheet', path: async (r) => `/sessions/${await sessionOf(r, await idOf(r, 'Sunniva Dahl'))}/sheet`, ready: 'Sunniva Dahl' },
  { name: 'drills', path: async () => '/library/drills', ready: 'Warm-up' },
  { name: 'drill', path: async () => '/library/drills/split-ramped', ready: 'Versions, easiest first' },
  { name: 'runner', path: async (r) => `/sessions/${await sessionOf(r, await idOf(r, 'Sunniva Dahl'))}/run`, ready: 'Pulse raiser' },
  { name: 'notes', path: async (r) => `/students/${await idOf(r, 'Bram Tellier')}/notes`, ready: 'Notes' },
  { name: 'log', path: async (r) => `/sessions/${await sessionOf(r, await idOf(r, 'Sunniva Dahl'))}/log`, ready: 'Log the lesson of Sunniva Dahl' },
  { name: 'waiting', path: async () => '/waiting', ready: 'Not logged yet' },
  { name: 'settings', path: async () => '/settings', ready: 'Settings' },
  { name: 'studio', path: async () => '/settings/studio', ready: 'Blocks' },
  { name: 'team', path: async () => '/settings/team', ready: 'Add someone' },
  { name: 'timer', path: async () => '/timer', ready: 'Presets' },
];

/**
 * Every rule in one theme, each screen in another than the one before it: what else a theme can change is contrast, and that is reckoned from the
 * colours for both (`contrast.test.ts`). Then no wider than a phone. Pages have no frames, so the legacy mode of the checker, which opens no page
 * of its own, sees the same in half the time.
 */
async function expectFit(page: Page, theme: 'chalk' | 'slate') {
  await wear(page, theme);
  const found = await new AxeBuilder({ page }).setLegacyMode().withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']).analyze();
  expect(found.violations.map((v) => `${theme}: ${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
}

/** The page with its data: nothing is loading any more. */
async function loaded(page: Page, heading: string | RegExp) {
  await expect(page.getByRole('heading', { name: heading }).first()).toBeVisible();
  await expect(page.getByText('Loading…')).toHaveCount(0);
}

for (const [i, screen] of screens.entries()) {
  const theme = i % 2 ? 'slate' : 'chalk';
  signedIn(`${screen.name}: accessible (${theme}), and no wider than a phone`, async ({ page, request }) => {
    await page.goto(await screen.path(request));
    await loaded(page, screen.ready);
    await expectFit(page, theme);
  });
}

test('sign-in: accessible, and no wider than a phone', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  await context.addInitScript(() => localStorage.setItem('theme', 'chalk'));
  await page.goto('/sign-in');
  await loaded(page, 'Sign in');
  await expectFit(page, 'slate');
});

signedIn('the ladder editor: accessible, and no wider than a phone', async ({ page }) => {
  await page.goto('/ladders');
  await page.getByRole('button', { name: 'Copy Crow and side crow' }).click();
  await loaded(page, 'A ladder of your own');
  await expectFit(page, 'chalk');
});

test('the strict content policy allows no inline script', async ({ page }) => {
  const answer = await page.goto('/sign-in');
  const policy = answer!.headers()['content-security-policy']!;
  expect(policy).toMatch(/script-src 'self'( 'sha256-[^']+')+;/);
  expect(policy).not.toMatch(/script-src[^;]*unsafe/);
  expect(policy).toContain("default-src 'none'");
});

test('a page that is not there says so', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/nowhere');
  await expect(page.getByRole('heading', { name: 'There is nothing here' })).toBeVisible();
});

test('another studio’s student is not found, and says so', async ({ page, context, expectRefusals }) => {
  expectRefusals();
  await signIn(context);
  await page.goto('/students/00000000-0000-7000-8000-000000000000');
  await expect(page.getByText('This is not here, or not yours.')).toBeVisible();
});
