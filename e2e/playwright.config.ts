import { defineConfig } from '@playwright/test';
import { LAUNCH } from './chromium.ts';

export default defineConfig({
  testDir: './tests',
  outputDir: './test-results',
  workers: 2,
  timeout: 60_000,
  forbidOnly: !!process.env.CI,
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    launchOptions: LAUNCH,
    trace: 'retain-on-failure',
  },
});
