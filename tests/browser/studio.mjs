import { cpSync, existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

export const root = resolve(import.meta.dirname, '../..');

/** The server as the tests build it. */
export const server = join(root, 'src/Tensarch.Server/bin/Release/net10.0/Tensarch.Server.dll');

/** A folder for a server's data: empty, or a copy of the demo studio that `./dev` made today. */
export function dataFolder(demo) {
  // In memory where there is such a place: no test waits for a disk.
  const folder = mkdtempSync(join(existsSync('/dev/shm') ? '/dev/shm' : tmpdir(), 'tensarch-'));
  const made = join(root, 'artifacts/demo/today/');
  if (demo && !existsSync(made)) throw new Error('There is no demo studio of today: make it with ./dev data');
  if (demo) cpSync(made, folder, { recursive: true, dereference: true });
  return folder;
}

const chromium = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];

/** Debian's Chromium, started so that it asks nothing of the network. */
export const launch = {
  executablePath: process.env.CHROMIUM ?? chromium.find(existsSync) ?? chromium[0],
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
};

/** What the server of an empty studio is told to ask its first owner for. */
export const setupCode = 'LAMP-2357';

/** Signs a browser context into the demo studio. */
export async function signIn(context, email = 'imre@saltlamp.example', password = 'lamp-works-owner') {
  const answer = await context.request.post('/api/v1/accounts/sign-in', { data: { email, password } });
  if (!answer.ok()) throw new Error(`sign-in: ${answer.status()}`);
}
