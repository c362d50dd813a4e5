// How long from starting the built server to the first 200 of /health/ready: ten times on a database that is there, five on none.
import { mkdtempSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { serve } from './server.mjs';

const port = 5190;

async function startOnce(data) {
  const from = performance.now();
  const server = await serve(data, port);
  const took = performance.now() - from;
  server.kill();
  await server.ended;
  return took;
}

async function measure(name, runs, fresh) {
  let data = mkdtempSync(join(tmpdir(), 'tensarch-'));
  if (!fresh) await startOnce(data);
  const times = [];
  for (let i = 0; i < runs; i++) {
    if (fresh) data = mkdtempSync(join(tmpdir(), 'tensarch-'));
    times.push(await startOnce(data));
    if (fresh) rmSync(data, { recursive: true });
  }
  times.sort((a, b) => a - b);
  const seconds = (ms) => (ms / 1000).toFixed(2);
  console.log(
    `${name}: min ${seconds(times[0])} s, median ${seconds(times[Math.floor(runs / 2)])} s, max ${seconds(times[runs - 1])} s, ${runs} runs`,
  );
}

console.log(`${cpus().length} × ${cpus()[0].model}, Node ${process.version}`);
await measure('start to first 200, database there', 10, false);
await measure('start to first 200, new database', 5, true);
