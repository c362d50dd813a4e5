// How the bench's pages answer as the readings grow from 2,000 to 200,000 in one studio of a hundred students over three years.
// Usage: node readings.mjs [READINGS ...]
import { execFileSync } from 'node:child_process';
import { mkdtempSync, statSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { serve } from './server.mjs';

const root = resolve(import.meta.dirname, '..');
const fill = join(root, 'bench/Tensarch.Fill/bin/Release/net10.0/Tensarch.Fill.dll');
const sizes = process.argv.length > 2 ? process.argv.slice(2).map(Number) : [2_000, 20_000, 200_000];
const runs = 30;
const data = mkdtempSync(join(tmpdir(), 'tensarch-'));
const base = 'http://127.0.0.1:5191';
let cookie = '';

async function call(path, body) {
  const answer = await fetch(`${base}/api/v1${path}`, {
    method: body ? 'POST' : 'GET',
    headers: { cookie, 'content-type': 'application/json' },
    body: body && JSON.stringify(body),
  });
  const set = answer.headers.getSetCookie();
  if (set.length) cookie = set.map((c) => c.split(';')[0]).join('; ');
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
  return answer.status === 204 ? undefined : answer.json();
}

async function studio() {
  await call('/accounts/owner', {
    studioName: 'Bench',
    timeZone: 'Europe/Oslo',
    name: 'Ines Falk',
    email: 'ines@harbour.example',
    password: 'a-long-password',
  });
  const { questions } = await call('/catalogue');
  for (let i = 0; i < 100; i++) {
    const id = crypto.randomUUID();
    const student = {
      name: `Student ${i}`,
      about: null,
      birthDate: '1990-05-06',
      leftLegCm: 86,
      rightLegCm: 86,
      bodyweightKg: null,
      breathSeconds: 4.5,
      sensationCeiling: 7,
      splitStandard: 'square',
      blocksOwned: 4,
      sessionMinutes: 60,
      guardianConsentOn: null,
    };
    await call('/students', { id, student });
    await call(`/students/${id}/answers`, { answers: questions.map((q) => ({ question: q.key, yes: false })) });
  }
}

async function time(name, ask) {
  for (let i = 0; i < 5; i++) await ask();
  const times = [];
  for (let i = 0; i < runs; i++) {
    const from = performance.now();
    await ask();
    times.push(performance.now() - from);
  }
  times.sort((a, b) => a - b);
  const ms = (t) => t.toFixed(1).padStart(7);
  console.log(`  ${name.padEnd(34)} median ${ms(times[runs / 2])} ms, worst of ${runs} ${ms(times.at(-1))} ms`);
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
