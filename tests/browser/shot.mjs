// Takes one picture of one page of the running demo: node shot.mjs PATH OUT [WIDTHxHEIGHT] [chalk|slate] [STEPS-MODULE]
import { chromium } from '@playwright/test';
import { signIn, launch } from './studio.mjs';

const [path, out, size = '1280x800', theme = 'chalk', steps] = process.argv.slice(2);
const [width, height] = size.split('x').map(Number);
const browser = await chromium.launch(launch);
const context = await browser.newContext({
  baseURL: process.env.BASE ?? 'http://127.0.0.1:5080',
  viewport: { width, height },
});
await context.addInitScript((t) => localStorage.setItem('theme', t), theme);
const page = await context.newPage();
page.on('console', (m) => m.type() === 'error' && console.log('console:', m.text()));
page.on('pageerror', (e) => console.log('page error:', e.message));
await signIn(context);
const target = path.includes('@')
  ? await context.request
      .get('/api/v1/students')
      .then((r) => r.json())
      .then((r) => path.replace(/@(\w+)/, (_, name) => r.students.find((s) => s.name.startsWith(name)).id))
  : path;
await page.goto(target);
await page.waitForLoadState('networkidle');
if (steps) await (await import(steps)).default(page);
await page.screenshot({ path: out });
await browser.close();
