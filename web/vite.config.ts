import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  server: { proxy: { '/api': 'http://127.0.0.1:5080' } },
  build: { assetsInlineLimit: 0 },
  test: {
    include: ['src/**/*.test.ts'],
    reporters: ['default', ['json', { outputFile: '../artifacts/vitest.json' }]],
  },
});
