import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { dataFolder, root, server, setupCode } from './studio.mjs';

/** A server that a test owns: started, killed, started again on the same data; and what it complained of. */
export class OwnServer {
  readonly url: string;
  readonly errors: string[] = [];
  readonly #folder: string;
  #running: ChildProcess | undefined;

  constructor(
    port: number,
    private readonly demo: boolean,
  ) {
    this.url = `http://127.0.0.1:${port}`;
    this.#folder = dataFolder(demo);
  }

  /** @param web The front end that it serves; the one that was built last when none is named. */
  async start(web = join(root, 'web/build')): Promise<void> {
    this.#running = spawn('dotnet', ['exec', server], {
      cwd: join(root, 'src/Tensarch.Server'),
      stdio: ['ignore', 'pipe', 'pipe'],
      env: {
        ...process.env,
        ASPNETCORE_URLS: this.url,
        Data: this.#folder,
        Web: web,
        Demo: String(this.demo),
        SignInsPerMinute: '1000',
        SetupCode: setupCode,
        Logging__LogLevel__Default: 'Warning',
      },
    });
    const hear = (said: Buffer) => {
      for (const line of said.toString().split('\n')) if (/^(fail|crit):/.test(line)) this.errors.push(line);
    };
    this.#running.stdout!.on('data', hear);
    this.#running.stderr!.on('data', hear);
    await expect
      .poll(async () => (await fetch(`${this.url}/health/ready`).catch(() => undefined))?.status, { timeout: 120_000 })
      .toBe(200);
  }

  async kill(): Promise<void> {
    const running = this.#running!;
    const gone = new Promise((done) => running.once('exit', done));
    running.kill('SIGKILL');
    await gone;
  }
}
