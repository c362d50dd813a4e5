import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

const packs = process.env.PACKS === 'on';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  server: { proxy: { '/api': 'http://127.0.0.1:5080' } },
  build: { assetsInlineLimit: 0 },
  test: {
    // The walk of the real packs needs the file that the core's tests write: `npm run test:packs`, after them.
    include: [packs ? 'src/**/*.packs.ts' : 'src/**/*.test.ts'],
    // No test is a stopwatch: only one that hangs is stopped, on a machine at a third of its pace too.
    testTimeout: packs ? 900_000 : 60_000,
    hookTimeout: 120_000,
    reporters: [
      'default',
      ['json', { outputFile: packs ? '../artifacts/packs.json' : '../artifacts/vitest.json' }],
    ],
  },
});
