import { expect, type APIRequestContext, type BrowserContext, type Page } from '@playwright/test';
import { signIn } from './studio.mjs';

type Line = { id: string; name: string };
export type Fact = { id: string; what: string; signal: string | null; drill: string | null; doubled: boolean };

/** A session of today for a student, made through the interface. */
export async function session(context: BrowserContext, name: string, minutes = 30): Promise<{ session: string; student: string }> {
  await signIn(context);
  const { students } = (await (await context.request.get('/api/v1/students')).json()) as { students: Line[] };
  const student = students.find((s) => s.name === name)!.id;
  const id = crypto.randomUUID();
  const made = await context.request.post(`/api/v1/students/${student}/sessions`, { data: { id, date: null, minutes, second: true } });
  expect(made.status()).toBe(201);
  return { session: id, student };
}

/** The same, and its page. */
export async function floor(page: Page, context: BrowserContext, name: string, minutes = 30): Promise<{ session: string; student: string }> {
  const made = await session(context, name, minutes);
  await page.clock.install();
  await page.goto(`/sessions/${made.session}/run`);
  return made;
}

export const now = (page: Page) => page.getByRole('region', { name: 'Now' });
export const run = (page: Page) => page.getByRole('button', { name: 'Run', exact: true }).click();
/** Within a minute and a half: a server that was killed is begun again first, and the outbox waits longer each time that it finds none. */
export const logged = (page: Page) => expect(page.getByText('all logged')).toBeVisible({ timeout: 90_000 });

/** Everything that the server has of a session, each once. */
export async function events(request: APIRequestContext, session: string): Promise<string[]> {
  const all = (await (await request.get(`/api/v1/sessions/${session}/events`)).json()) as { id: string; said: string }[];
  expect(new Set(all.map((e) => e.id)).size).toBe(all.length);
  return all.map((e) => (JSON.parse(e.said) as { is: string }).is);
}

export async function facts(request: APIRequestContext, student: string): Promise<Fact[]> {
  return ((await (await request.get(`/api/v1/students/${student}/facts`)).json()) as { facts: Fact[] }).facts;
}
