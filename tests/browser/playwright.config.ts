import { defineConfig } from '@playwright/test';
import { join } from 'node:path';
import { dataFolder, launch, root, server, setupCode } from './studio.mjs';

/** A server of its own, on a copy of the demo studio or in an empty folder. */
const serve = (port: number, demo: boolean) => ({
  command: `dotnet exec ${server}`,
  cwd: join(root, 'src/Tensarch.Server'),
  url: `http://127.0.0.1:${port}/health/ready`,
  timeout: 900_000,
  reuseExistingServer: false,
  env: {
    ASPNETCORE_URLS: `http://127.0.0.1:${port}`,
    Data: dataFolder(demo),
    Web: join(root, 'web/build'),
    Demo: String(demo),
    SignInsPerMinute: '1000',
    SetupCode: setupCode,
    Logging__LogLevel__Default: 'Warning',
  },
});

export default defineConfig({
  testDir: '.',
  outputDir: 'test-results',
  // Five were a fifth faster on a quiet machine, and on a busy one their servers, begun all at once, took minutes to start.
  workers: 3,
  // Generous, because a shared machine can be many times slower than itself: what fails is wrong, not late.
  timeout: 240_000,
  expect: { timeout: 30_000 },
  forbidOnly: !!process.env.CI,
  reporter: [['list'], ['json', { outputFile: join(root, 'artifacts/playwright.json') }]],
  // A service worker would answer before the routes that a test sets up; the test of it lets it in.
  use: { viewport: { width: 1280, height: 800 }, launchOptions: launch, serviceWorkers: 'block', // A trace costs a quarter of the time: TRACE=on when a failure is to be looked at.
    trace: process.env.TRACE === 'on' ? 'on' : 'off' },
  projects: [
    // The longest is begun first. On a server of its own, that begins empty.
    { name: 'first hour', testMatch: 'first-hour.spec.ts' },
    { name: 'new studio', testMatch: 'new-studio.spec.ts', use: { baseURL: 'http://127.0.0.1:5182' } },
    { name: 'demo', testMatch: 'demo.spec.ts', use: { baseURL: 'http://127.0.0.1:5181' } },
    // What is trained there would stand in the way of the others: a demo studio of its own.
    { name: 'floor', testMatch: /floor.*\.spec\.ts/, use: { baseURL: 'http://127.0.0.1:5184' } },
    { name: 'roster', testMatch: 'roster.spec.ts' },
    { name: 'settings', testMatch: 'settings.spec.ts' },
    { name: 'old shell', testMatch: 'old-shell.spec.ts' },
    { name: 'bench', testMatch: /(bench|dead-ends|session|plan).spec.ts/, use: { baseURL: 'http://127.0.0.1:5181' } },
    { name: 'screens', testMatch: 'screens.spec.ts', fullyParallel: true, use: { baseURL: 'http://127.0.0.1:5181' } },
  ],
  webServer: [serve(5181, true), serve(5182, false), serve(5184, true)],
});
