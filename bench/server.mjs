// Starts the built server on a folder of data and waits for its first 200.
import { spawn } from 'node:child_process';
import { join, resolve } from 'node:path';

const root = resolve(import.meta.dirname, '..');

export async function serve(data, port) {
  const child = spawn('dotnet', ['exec', join(root, 'artifacts/server/Tensarch.Server.dll')], {
    cwd: join(root, 'src/Tensarch.Server'),
    stdio: 'ignore',
    env: { ...process.env, ASPNETCORE_URLS: `http://127.0.0.1:${port}`, Data: data, SetupCode: 'LAMP-2357', Logging__LogLevel__Default: 'Warning' },
  });
  const ended = new Promise((done) => child.once('exit', done));
  for (;;) {
    try {
      if ((await fetch(`http://127.0.0.1:${port}/health/ready`)).ok) break;
    } catch {
      await new Promise((wait) => setTimeout(wait, 10));
    }
    if (child.exitCode !== null) throw new Error('the server did not start');
  }
  return { kill: () => child.kill(), ended };
}
