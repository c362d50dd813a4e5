import AxeBuilder from '@axe-core/playwright';
import type { APIRequestContext } from '@playwright/test';
import { expect, test } from './clean-page';
import { signIn } from './studio.mjs';

type Line = { id: string; name: string };

async function idOf(request: APIRequestContext, name: string): Promise<string> {
  const roster = (await (await request.get('/api/v1/students')).json()) as { students: Line[] };
  return roster.students.find((s) => s.name === name)!.id;
}

async function sessionOf(request: APIRequestContext, student: string): Promise<string> {
  const id = crypto.randomUUID();
  const made = await request.post(`/api/v1/students/${student}/sessions`, { data: { id, date: null, minutes: 45 } });
  expect(made.status()).toBe(201);
  return id;
}

async function sittingOf(request: APIRequestContext, student: string): Promise<string> {
  const id = crypto.randomUUID();
  const data = { id, scope: 'single', measures: ['seated-reach', 'side-plank-hold', 'kick-up-success'], cold: true };
  expect((await request.post(`/api/v1/students/${student}/sittings`, { data })).status()).toBe(201);
  return id;
}

const screens: { name: string; path: (r: APIRequestContext) => Promise<string>; ready: string | RegExp; open?: boolean }[] = [
  { name: 'sign-in', path: async () => '/sign-in', ready: 'Sign in', open: true },
  { name: 'roster', path: async () => '/students', ready: 'Students' },
  { name: 'new student', path: async () => '/students/new', ready: 'New student' },
  { name: 'student', path: async (r) => `/students/${await idOf(r, 'Sunniva Dahl')}`, ready: /Why the left/ },
  { name: 'placing', path: async (r) => `/students/${await idOf(r, 'Dario Weft')}`, ready: 'Put on a ladder' },
  { name: 'bilateral skill', path: async (r) => `/students/${await idOf(r, 'Teodor Vance')}`, ready: /Why the gate/ },
  { name: 'history', path: async (r) => `/students/${await idOf(r, 'Rosalind Achterberg')}/history`, ready: 'Who wrote down what' },
  { name: 'ladders', path: async () => '/ladders', ready: 'Ladders' },
  { name: 'ladder', path: async () => '/ladders/shoulderstand/1', ready: 'Shoulderstand and plow' },
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
  { name: 'body', path: async (r) => `/students/${await idOf(r, 'Sunniva Dahl')}/edit`, ready: 'Sunniva Dahl' },
  { name: 'readiness', path: async () => '/readiness', ready: 'Readiness' },
  { name: 'sheet', path: async (r) => `/sessions/${await sessionOf(r, await idOf(r, 'Sunniva Dahl'))}`, ready: 'What shaped it' },
  { name: 'runner', path: async (r) => `/sessions/${await sessionOf(r, await idOf(r, 'Sunniva Dahl'))}/run`, ready: 'Joint circles, full' },
  { name: 'team', path: async () => '/team', ready: 'Team' },
];

for (const screen of screens)
  test(`${screen.name}: accessible in both themes, and no wider than a phone`, async ({ page, context, expectRefusals }) => {
    if (!screen.open) await signIn(context);
    else expectRefusals();
    await context.addInitScript(() => localStorage.setItem('theme', 'chalk'));
    await page.goto(await screen.path(context.request));
    await expect(page.getByRole('heading', { name: screen.ready }).first()).toBeVisible();
    await page.waitForLoadState('networkidle');
    for (const theme of ['chalk', 'slate']) {
      await page.evaluate((t) => (document.documentElement.dataset.theme = t), theme);
      const found = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']).analyze();
      expect(found.violations.map((v) => `${theme}: ${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
    }
    await page.setViewportSize({ width: 390, height: 844 });
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  });

test('the ladder editor: accessible in both themes, and no wider than a phone', async ({ page, context }) => {
  await signIn(context);
  await page.goto('/ladders');
  await page.getByRole('button', { name: 'Copy Crow and side crow' }).click();
  await expect(page.getByRole('heading', { name: 'A ladder of your own' })).toBeVisible();
  await page.waitForLoadState('networkidle');
  for (const theme of ['chalk', 'slate']) {
    await page.evaluate((t) => (document.documentElement.dataset.theme = t), theme);
    const found = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']).analyze();
    expect(found.violations.map((v) => `${theme}: ${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
  }
  await page.setViewportSize({ width: 390, height: 844 });
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
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
