import { defineConfig } from '@playwright/test';
import { LAUNCH } from './chromium.ts';

export default defineConfig({
  // `npm test` runs the first; the others have commands of their own.
  projects: [
    { name: 'tests', testDir: './tests' },
    { name: 'shots', testDir: './shots' },
    // Recording a trace would slow what is measured.
    { name: 'bench', testDir: './bench', workers: 1, use: { trace: 'off' } },
  ],
  outputDir: './test-results',
  workers: 2,
  // A loaded machine may starve a browser once; a real fault fails twice, and a retry is listed.
  retries: process.env.CI ? 1 : 0,
  fullyParallel: false,
  timeout: 150_000,
  // Debug builds beside other work answer slowly.
  expect: { timeout: 10_000 },
  forbidOnly: !!process.env.CI,
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    // Requests must be seen by the tests; those of the offline shell let it in.
    serviceWorkers: 'block',
    launchOptions: LAUNCH,
    trace: process.env.CI ? 'off' : 'retain-on-failure',
  },
});
