// How the readiness board, the roster and a student's page answer with a thousand students and three years of history, beside a hundred and
// one year. Usage: node board.mjs
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { call, firstStudent, time } from './client.mjs';
import { serve } from './server.mjs';

const root = resolve(import.meta.dirname, '..');
const fill = join(root, 'bench/Tensarch.Fill/bin/Release/net10.0/Tensarch.Fill.dll');

console.log(`${cpus().length} × ${cpus()[0].model}, Node ${process.version}`);
for (const [students, years] of [
  [100, 1],
  [1000, 3],
]) {
  const data = mkdtempSync(join(tmpdir(), 'tensarch-'));
  const db = join(data, 'tensarch.db');
  let server = await serve(data, 5191);
  const id = await firstStudent();
  server.kill();
  await server.ended;
  console.log(execFileSync('dotnet', ['exec', fill, db, String(students), String(years)]).toString().trim());
  server = await serve(data, 5191);
  console.log(`${(statSync(db).size / 1e6).toFixed(0)} MB`);
  const from = performance.now();
  const counts = await call('/readiness/counts');
  console.log(`  every gate derived anew: ${((performance.now() - from) / 1000).toFixed(2)} s for ${counts.reduce((n, c) => n + c.gates, 0)} gates`);
  const group = counts.sort((a, b) => b.gates - a.gates)[0].group;
  const first = await call(`/readiness?group=${group}`);
  await time('board, first page', () => call(`/readiness?group=${group}`));
  await time('board, second page', () => call(`/readiness?group=${group}&after=${first.next}`));
  await time('board, one skill', () => call(`/readiness?group=${group}&skill=front-split`));
  await time('board, counts', () => call('/readiness/counts'));
  await time('roster, first page', () => call('/students'), 10);
  await time('a student’s page', () => call(`/students/${id}`));
  await time('a skill with all its tests', () => call(`/students/${id}/skills/front-split`));
  await time('decisions', () => call(`/students/${id}/decisions`));
  for (const [what, stage] of [
    ['a draft ladder that changes everyone’s stage', 3],
    ['a draft ladder that changes another stage', 5],
  ]) {
    const draft = await call('/ladders/front-split/versions/1');
    draft.stages[stage - 1].tests[0].threshold += 1;
    await time(what, () => call('/ladders/try', draft), 3);
  }
  server.kill();
  await server.ended;
  rmSync(data, { recursive: true });
}
