// A day's walk by thumb, on and off the line.
import type { Page } from '@playwright/test';
import { expect, test, type App } from '../app.ts';

test.use({
  viewport: { width: 390, height: 844 },
  hasTouch: true,
  isMobile: true,
  serviceWorkers: 'allow',
});

interface Told {
  kept: { entry: { id: string; fact?: Record<string, Record<string, unknown>>; text?: string } };
  counts: boolean;
}

async function log(app: App, query = ''): Promise<Told[]> {
  const path = `${app.url}/api/plans/1/log?from=2027-04-09&limit=500${query}`;
  return (await (await fetch(path)).json()) as Told[];
}

/** Waits until the shell is on the device and the walk is there. */
async function ready(page: Page) {
  await expect(page.getByTestId('walk')).toBeVisible();
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await expect
    .poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null))
    .toBe(true);
}

const cards = (page: Page) => page.locator('[data-job][data-what]');

/** Taps everything of the walk that is open, one after another. */
async function walkRound(page: Page, most: number): Promise<number> {
  let tapped = 0;
  for (; tapped < most; tapped++) {
    const open = page.locator('[data-stop] > div > [data-job][data-what]');
    if ((await open.count()) === 0) break;
    const card = open.first();
    const id = (await card.getAttribute('data-job'))!;
    await card
      .getByRole('button', { name: /^(Done:|Log)/ })
      .first()
      .tap();
    // Another job may come up for it: lamps over a tray that was moved.
    await expect(page.locator(`[data-job="${id}"][data-what]`)).toHaveCount(0, { timeout: 20_000 });
  }
  return tapped;
}

test('a walk by tapping, part of it without a line, with the server killed in between', async ({
  page,
  context,
  app,
}) => {
  await page.goto(`${app.url}/`);
  // On a phone the walk is the first thing.
  await expect(page).toHaveURL(/\/today/);
  await ready(page);
  const before = await log(app);
  const first = await walkRound(page, 3);
  expect(first).toBe(3);
  // All three are with the server before the line breaks.
  await expect.poll(async () => (await log(app)).length).toBeGreaterThanOrEqual(before.length + 3);
  const sent = (await log(app)).length;

  // Down in the cellar: nothing answers.
  await context.setOffline(true);
  const away = await walkRound(page, 3);
  expect(away).toBeGreaterThan(0);
  await expect(page.getByText('waits to be sent').first()).toBeVisible();
  // The page itself opens without a server, with the walk as it was seen last.
  await page.reload();
  await expect(page.getByTestId('walk')).toBeVisible();
  await expect(page.getByText(/as it was seen last/)).toBeVisible();
  await expect(page.getByText('waits to be sent').first()).toBeVisible();
  expect((await log(app)).length).toBe(sent);

  // Meanwhile the server dies and is started again; the line comes back.
  process.kill(app.pid, 'SIGKILL');
  await app.start();
  await context.setOffline(false);
  const length = async () => (await log(app)).length;
  await expect.poll(length, { timeout: 20_000 }).toBeGreaterThan(sent);
  await expect(page.getByTestId('walk')).toBeVisible();
  await expect(page.getByText('waits to be sent')).toHaveCount(0);
  const all = await log(app);
  expect(all.length).toBeGreaterThan(sent);
  const ids = all.map((told) => told.kept.entry.id);
  expect(new Set(ids).size).toBe(ids.length);
  const facts = all.map((told) => JSON.stringify(told.kept.entry.fact));
  expect(new Set(facts).size).toBe(facts.length);
  // What is left is done too, until nothing presses.
  await walkRound(page, 30);
  await expect(page.getByTestId('how-much')).toContainText('Nothing presses');
});

test('trays are left out, counted, put off, skipped and taken back by thumb', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/today?on=2027-04-09`);
  await expect(page.getByTestId('walk')).toBeVisible();
  // Every button of a job is large enough for a thumb.
  const done = cards(page)
    .getByRole('button', { name: /^Done:/ })
    .first();
  expect((await done.boundingBox())!.height).toBeGreaterThanOrEqual(44);

  const water = page
    .locator('[data-what=water]')
    .filter({ has: page.getByRole('list') })
    .first();
  const chip = water.getByRole('list').getByRole('button').first();
  const label = (await chip.locator('b').textContent())!;
  await chip.tap();
  await expect(chip).toHaveAttribute('aria-pressed', 'false');
  await water.getByRole('button', { name: /^Done:/ }).tap();
  await expect.poll(async () => (await log(app, '&kind=watered')).length).toBeGreaterThan(0);
  const plan = await (await fetch(`${app.url}/api/plans/1/file`)).json();
  const left = plan.trays.find((tray: { name: string }) => tray.name === label).id;
  const watered = (await log(app, '&kind=watered')).map(
    (told) => told.kept.entry.fact!.watered!.tray,
  );
  expect(watered).not.toContain(left);

  // Counting: behind "can wait", a number for each tray.
  const count = page.locator('[data-what=count]').first();
  await page.locator('details').filter({ has: count }).locator('summary').first().tap();
  const more = count.getByRole('button', { name: /one more$/ }).first();
  await more.tap();
  await more.tap();
  await count.getByRole('button', { name: 'Log the count' }).tap();
  await expect.poll(async () => (await log(app, '&kind=shown')).length).toBeGreaterThan(0);

  // Not today: put off, and skipped with a reason.
  const lamps = page.locator('[data-what=lamps]');
  const many = await lamps.count();
  await lamps.first().getByRole('button', { name: 'Not today' }).tap();
  await lamps.first().getByRole('button', { name: 'Tomorrow' }).tap();
  await expect(lamps).toHaveCount(many - 1);
  await lamps.first().getByRole('button', { name: 'Not today' }).tap();
  await expect(lamps.first().getByRole('button', { name: 'Skip' })).toBeDisabled();
  await lamps.first().getByLabel('Leave undone, because').fill('the hook is broken');
  await lamps.first().getByRole('button', { name: 'Skip' }).tap();
  await expect(lamps).toHaveCount(many - 2);

  // And back: the job comes again.
  const noted = page.getByTestId('noted').getByRole('listitem').filter({ hasText: 'Skipped' });
  await noted.getByRole('button', { name: 'Take back' }).tap();
  await expect(lamps).toHaveCount(many - 1);
});

test('a reading, a loss and a photo are noted, and what cannot be is said', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/today?on=2027-04-09`);
  await page.getByRole('button', { name: 'Note, measure or photograph' }).tap();
  const form = page.getByRole('region', { name: 'Note or measure' });
  await form.getByRole('button', { name: 'Keep', exact: true }).tap();
  await expect(form.getByRole('alert')).toContainText('Write a line');
  await form.getByLabel('What', { exact: true }).selectOption('measured');
  await form.getByLabel('Where', { exact: true }).selectOption('tray');
  await form.getByLabel('Tray', { exact: true }).selectOption({ label: 'Pe1' });
  await form.getByLabel('It shows').fill('23,5');
  await form.getByRole('button', { name: 'Keep', exact: true }).tap();
  await expect(page.getByTestId('noted')).toContainText('Temperature of the mix, Pe1: 23.5');

  await page.getByRole('button', { name: 'Note, measure or photograph' }).tap();
  await form.getByLabel('In your own words').fill('fur on the mix');
  await form.getByLabel('Photo').setInputFiles({
    name: 'fur.png',
    mimeType: 'image/png',
    buffer: Buffer.from(await (await fetch(`${app.url}/icon-192.png`)).arrayBuffer()),
  });
  await form.getByRole('button', { name: 'Keep', exact: true }).tap();
  const photo = page.getByTestId('noted').getByRole('img', { name: /fur on the mix/ });
  await expect(photo).toBeVisible();
  await expect
    .poll(() => photo.evaluate((img) => (img as HTMLImageElement).naturalWidth))
    .toBe(192);
});

test('the weeks ahead say how much water, and which tray is next', async ({ page, app }) => {
  await page.goto(`${app.url}/today?on=2027-04-09`);
  const water = page.getByRole('region', { name: 'Water ahead' });
  await water.getByText('Water, week by week').click();
  await expect(water.getByTestId('water-weeks').getByRole('row').first()).toContainText(
    /\d\s(l|ml)/,
  );
  const trays = water.getByTestId('water-trays').getByRole('listitem');
  await expect(trays.first()).toContainText('when it wants water');
  expect(await trays.count()).toBeGreaterThan(5);
});

test.describe('on a slow line', () => {
  // What the shell's worker sends cannot be held up here.
  test.use({ serviceWorkers: 'block' });

  test('what is taken back while it is on its way is taken back', async ({ page, app }) => {
    await page.goto(`${app.url}/today?on=2027-04-09`);
    const lamps = page.locator('[data-what=lamps]');
    await expect(lamps.first()).toBeVisible();
    const many = await lamps.count();
    let sent = 0;
    await page.route('**/api/plans/1/log*', async (route) => {
      if (route.request().method() === 'POST') {
        sent += 1;
        await new Promise((passed) => setTimeout(passed, 1500));
      }
      await route.continue();
    });
    await lamps.first().getByRole('button', { name: 'Not today' }).tap();
    await lamps.first().getByLabel('Leave undone, because').fill('the hook is broken');
    await lamps.first().getByRole('button', { name: 'Skip' }).tap();
    await expect.poll(() => sent).toBe(1);
    const noted = page.getByTestId('noted').getByRole('listitem').filter({ hasText: 'Skipped' });
    await noted.first().getByRole('button', { name: 'Take back' }).tap();
    await expect.poll(() => sent).toBe(2);
    await expect(lamps).toHaveCount(many);
    await expect(noted).toHaveCount(0);
  });
});
