// Takes the pictures in docs/screenshots from a demo studio of its own: ./dev shots
import { chromium } from '@playwright/test';
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { dataFolder, launch, root, server as program, signIn } from './studio.mjs';

const out = (name) => join(root, 'docs/screenshots', `${name}.png`);
const base = 'http://127.0.0.1:5183';
const server = spawn('dotnet', ['exec', program], {
  cwd: join(root, 'src/Tensarch.Server'),
  stdio: 'ignore',
  env: {
    ...process.env,
    ASPNETCORE_URLS: base,
    Data: dataFolder(true),
    Web: join(root, 'web/build'),
    Demo: 'true',
  },
});
process.on('exit', () => server.kill());
for (;;) {
  try {
    if ((await fetch(`${base}/health/ready`)).ok) break;
  } catch {
    await new Promise((wait) => setTimeout(wait, 200));
  }
}

const browser = await chromium.launch(launch);

async function open(theme = 'chalk', size = { width: 1280, height: 800 }, signedIn = true) {
  const context = await browser.newContext({ baseURL: base, viewport: size });
  await context.addInitScript((t) => localStorage.setItem('theme', t), theme);
  if (signedIn) await signIn(context);
  const page = await context.newPage();
  const { students } = signedIn ? await (await context.request.get('/api/v1/students')).json() : { students: [] };
  return { page, id: (name) => students.find((s) => s.name.startsWith(name)).id };
}

async function shoot(page, path, name) {
  if (path) await page.goto(path);
  await page.waitForLoadState('networkidle');
  await page.screenshot({ path: out(name) });
  console.log(name);
}

const phone = { width: 390, height: 844 };
const desk = await open();
const dark = await open('slate');
const small = await open('chalk', phone);

await shoot(desk.page, '/students', 'roster');
await shoot(desk.page, `/students/${desk.id('Sunniva')}`, 'student');
await shoot(desk.page, '/readiness', 'readiness');
await shoot(desk.page, `/students/${desk.id('Rosalind')}/cautions`, 'cautions');
await shoot(desk.page, `/students/${desk.id('Sunniva')}/decisions`, 'decisions');
await shoot(desk.page, `/students/${desk.id('Dario')}`, 'placing');
await shoot(desk.page, '/ladders/policy', 'policy-bench');
await desk.page.goto('/ladders');
await desk.page.getByRole('button', { name: 'Copy Front split' }).click();
await desk.page.getByRole('region', { name: 'Stage 3' }).getByLabel('Threshold').first().fill('25');
await desk.page.getByText('would say something else').waitFor();
await shoot(desk.page, undefined, 'ladder-editor');

/** A sitting with the measures named, opened on a page. */
async function sit(view, name, measures) {
  const id = crypto.randomUUID();
  const path = `/students/${view.id(name)}`;
  await view.page.request.post(`/api/v1${path}/sittings`, { data: { id, scope: 'single', measures, cold: false } });
  await view.page.goto(`${path}/bench/${id}`);
  return (side) => view.page.getByRole('region', { name: `${side} side` });
}

const bench = await sit(desk, 'Sunniva', ['front-split-gap', 'passive-slr', 'lunge-chest-gap', 'hip-extension']);
await desk.page.getByRole('button', { name: 'Front split gap' }).click();
for (const [side, trials] of [
  ['Left', ['34.6', '34.2', '34.4']],
  ['Right', ['25.2', '25.6', '24.9']],
])
  for (const trial of trials) {
    const field = bench(side).getByRole('textbox', { name: /^Trial/ });
    await field.fill(trial);
    await field.press('Enter');
  }
await shoot(desk.page, undefined, 'bench');

await desk.page.goto(`/students/${desk.id('Kofi')}/pictures`);
const lines = desk.page.getByRole('button', { name: /Handstand line/ });
await lines.first().click();
await lines.last().click();
await shoot(desk.page, undefined, 'pictures');
await shoot(desk.page, `/students/${desk.id('Sunniva')}/readings/front-split-gap/warm-square`, 'series');
await shoot(desk.page, '/library', 'library');
await shoot(desk.page, '/timer', 'timer');

await desk.page.goto(`/students/${desk.id('Greta')}`);
await desk.page.getByRole('link', { name: 'Open today’s session' }).click();
await desk.page.getByRole('link', { name: 'Run it' }).waitFor();
await shoot(desk.page, undefined, 'session-sheet');
const session = new URL(desk.page.url()).pathname;

await desk.page.getByRole('link', { name: 'Change it' }).click();
await desk.page.getByRole('button', { name: /^Remove Ramped/ }).click();
await desk.page.getByRole('button', { name: 'Remove Wrist series' }).click();
await desk.page.getByRole('heading', { name: 'Not like this' }).waitFor();
await shoot(desk.page, undefined, 'session-editor');

for (const [view, name] of [
  [dark, 'runner-dark'],
  [small, 'runner-phone'],
]) {
  await view.page.goto(`${session}/run`);
  await view.page.getByRole('button', { name: 'Run', exact: true }).click();
  const now = view.page.getByRole('region', { name: 'Now' });
  const goOn = view.page.getByRole('button', { name: /^(\d+ to answer|Go on)$/ });
  for (let i = 0; i < 200; i++) {
    await now.or(goOn).first().waitFor();
    // A day gate asks on the way: all of it holds.
    if (await goOn.isVisible()) {
      for (const check of await view.page.getByRole('group').filter({ has: view.page.getByRole('button') }).all())
        await check.getByRole('button').first().click();
      await goOn.click();
    } else if (/Ramped split[\s\S]*%/.test(await now.innerText())) break;
    else await view.page.keyboard.press('ArrowRight');
  }
  await view.page.waitForTimeout(4000);
  await shoot(view.page, undefined, name);
}

const nkechi = desk.id('Nkechi');
await desk.page.goto(`/students/${nkechi}/plan`);
await desk.page.getByRole('region', { name: 'The weeks' }).getByRole('button').nth(4).click();
await shoot(desk.page, undefined, 'plan');
await shoot(desk.page, '/today', 'today');

await browser.close();
