// How the pages of programmes answer: today, a plan, its versions, calendars; a hundred students on programmes with a year of history and five
// versions each, beside ten times as many students, and ten times as many versions. Usage: node programmes.mjs
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { base, call, firstStudent, time } from './client.mjs';
import { serve } from './server.mjs';

const root = resolve(import.meta.dirname, '..');
const fill = join(root, 'bench/Tensarch.Fill/bin/Release/net10.0/Tensarch.Fill.dll');
const on = (days) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

console.log(`${cpus().length} × ${cpus()[0].model}, Node ${process.version}`);
for (const [students, years, versions] of [
  [100, 1, 5],
  [1000, 1, 5],
  [100, 3, 50],
]) {
  const data = mkdtempSync(join(tmpdir(), 'tensarch-'));
  const db = join(data, 'tensarch.db');
  let server = await serve(data, 5191);
  const id = await firstStudent();
  await call(`/students/${id}/programme`, {
    id: crypto.randomUUID(),
    basedOn: 0,
    sketch: {
      start: on(0),
      weeks: 8,
      goals: [{ skill: 'front-split', priority: 1, target: null }],
      days: [0, 2, 4].map((d) => ({
        weekday: new Date(Date.now() + d * 86_400_000).toLocaleDateString('en', { weekday: 'long' }).toLowerCase(),
        date: null,
        minutes: 60,
        half: 'pm',
      })),
    },
  });
  server.kill();
  await server.ended;
  console.log(execFileSync('dotnet', ['exec', fill, db, String(students), String(years), String(versions)]).toString().trim());
  server = await serve(data, 5191);
  console.log(`${(statSync(db).size / 1e6).toFixed(0)} MB`);
  await call('/readiness/counts');
  await time('today', () => call('/today'));
  await time('a programme', () => call(`/students/${id}/programme`));
  await time('its versions', () => call(`/students/${id}/programme/versions`));
  await time('an old version', () => call(`/students/${id}/programme/versions/1`));
  await time('the newest run of a roster', () => call('/roster-runs/newest'));
  for (const [what, studentId] of [
    ['a student’s calendar', id],
    ['a coach’s calendar', null],
  ]) {
    const { path } = await call('/calendar/feeds', { id: crypto.randomUUID(), studentId, morning: '09:00:00', afternoon: '17:00:00' });
    await time(what, async () => (await fetch(base + path)).text(), 5);
  }
  server.kill();
  await server.ended;
  rmSync(data, { recursive: true });
}
