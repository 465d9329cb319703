import tailwindcss from '@tailwindcss/vite';
import { sveltekit } from '@sveltejs/kit/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  // `npm run dev` shows the front end over a server that is already running.
  server: { proxy: { '/api': 'http://127.0.0.1:7420', '/healthz': 'http://127.0.0.1:7420' } },
  test: { include: ['src/**/*.test.ts'] },
});
