import type { LaunchOptions } from '@playwright/test';

/** Debian's Chromium, without what a container does not have. */
export const LAUNCH: LaunchOptions = {
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-dev-shm-usage',
    '--disable-background-networking',
    '--font-render-hinting=none',
  ],
};
