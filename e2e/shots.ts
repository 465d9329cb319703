// Refreshes docs/screenshots from the demo: `cargo xtask shots`.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { App } from './app.ts';
import { LAUNCH } from './chromium.ts';

const FOLDER = join(import.meta.dirname, '../docs/screenshots');
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

const SHOTS = [
  { name: 'room-day', path: '/?on=2027-05-04&bay=door/t2', size: DESK, ground: 'light' },
  { name: 'room-night', path: '/?on=2027-05-04&bay=door/t2', size: DESK, ground: 'dark' },
  { name: 'room-phone', path: '/?on=2027-05-04', size: PHONE, ground: 'light' },
  { name: 'setup-day', path: '/setup?on=2027-05-04', size: DESK, ground: 'light' },
] as const;

mkdirSync(FOLDER, { recursive: true });
const app = await new App().start();
const browser = await chromium.launch(LAUNCH);
for (const shot of SHOTS) {
  const page = await browser.newPage({ viewport: shot.size, colorScheme: shot.ground });
  await page.goto(app.url + shot.path);
  await page.getByTestId('date').waitFor();
  await page.waitForLoadState('networkidle');
  await page.evaluate(() => document.fonts.ready);
  const path = join(FOLDER, `${shot.name}.png`);
  await page.screenshot({ path, animations: 'disabled' });
  console.log(path);
  await page.close();
}
await browser.close();
await app.stop();
app.remove();
