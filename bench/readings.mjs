// How the bench's pages answer as the readings grow from 2,000 to 200,000 in one studio of a hundred students over three years.
// Usage: node readings.mjs [READINGS ...]
import { execFileSync } from 'node:child_process';
import { mkdtempSync, statSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { call, owner, student, time } from './client.mjs';
import { serve } from './server.mjs';

const root = resolve(import.meta.dirname, '..');
const fill = join(root, 'bench/Tensarch.Fill/bin/Release/net10.0/Tensarch.Fill.dll');
const sizes = process.argv.length > 2 ? process.argv.slice(2).map(Number) : [2_000, 20_000, 200_000];
const data = mkdtempSync(join(tmpdir(), 'tensarch-'));

async function studio() {
  const questions = await owner();
  for (let i = 0; i < 100; i++) await student(`Student ${i}`, questions);
}

console.log(`${cpus().length} × ${cpus()[0].model}, Node ${process.version}`);
let server = await serve(data, 5191);
await studio();
const { students } = await call('/students');
const id = students[0].id;
for (const size of sizes) {
  server.kill();
  await server.ended;
  execFileSync('dotnet', ['exec', fill, join(data, 'tensarch.db'), String(size)]);
  server = await serve(data, 5191);
  console.log(`${size} readings, ${(statSync(join(data, 'tensarch.db')).size / 1e6).toFixed(0)} MB`);
  const first = await call('/readings');
  await time('studio readings, first page', () => call('/readings'));
  await time('studio readings, second page', () => call(`/readings?before=${first.next}`));
  await time('studio readings, one measure', () => call('/readings?measure=front-split-gap'));
  await time('student’s readings, first page', () => call(`/students/${id}/readings`));
  await time('student’s series', () => call(`/students/${id}/series`));
  await time('points of one series', () => call(`/students/${id}/series/front-split-gap?warmth=warm&standard=square`));
  await time('bench, what may be read', () => call(`/students/${id}/bench`));
  await time('preview with own noise', () =>
    call(`/students/${id}/readings/preview`, {
      id: crypto.randomUUID(),
      measure: 'front-split-gap',
      side: 'left',
      warmth: 'warm',
      standard: 'square',
      instrument: 'tape',
      trials: [32, 32.4, 31.9],
      compensations: [],
      quality: null,
      sensation: null,
      pain: null,
      note: null,
      takenAt: null,
    }),
  );
}
server.kill();
await server.ended;
