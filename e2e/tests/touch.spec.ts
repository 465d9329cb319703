// With a thumb on a phone.
import { expect, test } from '../app.ts';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

test('a bay opens with a tap and its lamp follows a finger', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-05-04`);
  // On a tray of it, which is part of the bay to a finger.
  const bay = (await page.getByRole('button', { name: /^Door rack, Tier 3:/ }).boundingBox())!;
  await page.touchscreen.tap(bay.x + 30, bay.y + 40);
  await expect(page.getByRole('heading', { name: 'Door rack, Tier 3' })).toBeAttached();
  const lamp = page.getByRole('slider', { name: /^Lamps of Door rack, Tier 3/ });
  const before = Number(await lamp.getAttribute('aria-valuenow'));
  await lamp.scrollIntoViewIfNeeded();
  const box = (await lamp.boundingBox())!;
  const [x, y] = [box.x + 70, box.y + box.height / 2];
  const client = await page.context().newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', dy = 0) =>
    client.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: type === 'touchEnd' ? [] : [{ x, y: y + dy }],
    });
  await touch('touchStart');
  for (const dy of [-2, -5, -8, -10]) await touch('touchMove', dy);
  await touch('touchEnd');
  await expect
    .poll(async () => Number(await lamp.getAttribute('aria-valuenow')))
    .toBeGreaterThan(before);
  const revision = async () =>
    (await (await page.request.get(`${app.url}/api/plans/1`)).json()).revision;
  await expect.poll(revision).toBe(2);
});

test('every control of the header is large enough for a thumb', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-05-04`);
  await expect(page.getByTestId('date')).toBeVisible();
  for (const control of await page.getByRole('banner').getByRole('button').all()) {
    const box = (await control.boundingBox())!;
    expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(24);
    expect(box.height).toBeGreaterThanOrEqual(36);
  }
});

test('a date is picked on the ribbon with a finger', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-03-01`);
  const band = (await page.getByRole('group', { name: /^The season/ }).boundingBox())!;
  await page.touchscreen.tap(band.x + band.width * 0.8, band.y + 40);
  await expect(page.getByTestId('date')).toContainText('May');
});
