// Refreshes docs/screenshots from the demo: `cargo xtask shots`.
import { join } from 'node:path';
import { test } from '../app.ts';

const FOLDER = join(import.meta.dirname, '../../docs/screenshots');
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

const SHOTS = [
  { name: 'room-day', path: '/?on=2027-04-09&bay=door/t2', size: DESK, ground: 'light' },
  { name: 'room-night', path: '/?on=2027-04-09&bay=door/t2', size: DESK, ground: 'dark' },
  { name: 'room-build', path: '/?on=2027-04-09&place=coat&build', size: DESK, ground: 'light' },
  { name: 'room-phone', path: '/?on=2027-04-09', size: PHONE, ground: 'light' },
  { name: 'setup-day', path: '/setup?on=2027-04-09', size: DESK, ground: 'light' },
] as const;

for (const shot of SHOTS) {
  test(shot.name, async ({ page, app }) => {
    await page.setViewportSize(shot.size);
    await page.emulateMedia({ colorScheme: shot.ground });
    await page.goto(app.url + shot.path);
    await page.getByTestId('date').waitFor();
    await page.waitForLoadState('networkidle');
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: join(FOLDER, `${shot.name}.png`), animations: 'disabled' });
  });
}
