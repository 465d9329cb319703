// The Room view against the real server: look, drag, nudge, undo, reload.
import type { Page } from '@playwright/test';
import { largePlan } from '../bench/large-plan.ts';
import { expect, test, type App } from '../app.ts';

const DAY = '2027-04-09';
const TIER2 = 'Lamps of Door rack, Tier 2, height above the shelf';

async function open(page: Page, app: App, query = `?on=${DAY}&bay=door/t2`) {
  await page.goto(app.url + '/' + query);
  await expect(page.getByTestId('date')).toContainText('April');
}

const lamp = (page: Page) => page.getByRole('slider', { name: TIER2 });
const height = async (page: Page) => Number(await lamp(page).getAttribute('aria-valuenow'));
const meanPpfd = async (page: Page) =>
  Number(await page.getByTestId('ppfd').locator('td').first().textContent());

async function plan(page: Page, app: App) {
  return (await page.request.get(`${app.url}/api/plans/1`)).json();
}

test('shows the rack as it stands on the date', async ({ page, app }) => {
  await open(page, app, `?on=${DAY}`);
  await expect(page.getByRole('heading', { name: 'The room' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Door rack, Tier 1: Ce1 Celery/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Door rack, Tier 4: Mx1/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Door rack, Tier 5: storage' })).toBeVisible();
  await expect(page.getByTestId('trays')).toHaveText('18 trays, room for 45');
});

test('a lamp is dragged with the mouse: figures follow, and the edit is kept', async ({
  page,
  app,
}) => {
  await open(page, app);
  await expect(page.getByTestId('ppfd')).toBeVisible();
  const before = { height: await height(page), ppfd: await meanPpfd(page) };
  const gap = await page.getByTestId('gap').textContent();
  const box = (await lamp(page).boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 - 8, { steps: 6 });
  // Still held down: the figures follow before anything is saved.
  await expect.poll(() => meanPpfd(page)).toBeLessThan(before.ppfd);
  await expect(page.getByTestId('gap')).not.toHaveText(gap!);
  expect((await plan(page, app)).revision).toBe(1);
  await page.mouse.up();
  await expect.poll(async () => (await plan(page, app)).revision).toBe(2);
  const after = await height(page);
  expect(after).toBeGreaterThan(before.height);
  const kept = (await plan(page, app)).plan.places[0].tiers[1].lamps;
  expect(kept.map((l: { height_mm: number }) => l.height_mm)).toEqual(Array(4).fill(after));

  const ppfd = await meanPpfd(page);
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Door rack, Tier 2' })).toBeVisible();
  await expect(lamp(page)).toHaveAttribute('aria-valuenow', String(after));
  expect(await meanPpfd(page)).toBe(ppfd);

  await page.keyboard.press('u');
  await expect(lamp(page)).toHaveAttribute('aria-valuenow', String(before.height));
  await expect.poll(() => meanPpfd(page)).toBe(before.ppfd);
  await page.keyboard.press('U');
  await expect(lamp(page)).toHaveAttribute('aria-valuenow', String(after));
});

test('a drag stops at the deck above and at the deck below', async ({ page, app }) => {
  await open(page, app);
  for (const [by, limit] of [
    [-400, 'aria-valuemax'],
    [800, 'aria-valuemin'],
  ] as const) {
    const box = (await lamp(page).boundingBox())!;
    const [x, y] = [box.x + 60, box.y + box.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x, y + by, { steps: 4 });
    await page.mouse.up();
    await expect.poll(() => height(page)).toBe(Number(await lamp(page).getAttribute(limit)));
  }
  await expect.poll(async () => (await plan(page, app)).revision).toBe(3);
});

test('a lamp is nudged with the keys, and a run of nudges is one edit', async ({ page, app }) => {
  await open(page, app);
  const before = await height(page);
  const ppfd = await meanPpfd(page);
  // Where the focus is does not matter while a bay is selected.
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowDown');
  await expect.poll(() => height(page)).toBe(before - 20);
  await expect.poll(() => meanPpfd(page)).toBeGreaterThan(ppfd);
  await expect.poll(async () => (await plan(page, app)).revision).toBe(2);
  await lamp(page).focus();
  await page.keyboard.press('Shift+ArrowUp');
  await expect.poll(() => height(page)).toBe(before + 5);
  // Undo right away: the nudge that rests is kept first, then taken back.
  await page.keyboard.press('u');
  await expect.poll(() => height(page)).toBe(before - 20);
});

test('the recommendation is applied with one click and then stands as right', async ({
  page,
  app,
}) => {
  await open(page, app);
  const sheet = page.getByRole('complementary', { name: 'Panel' });
  await expect(
    sheet.getByRole('heading', {
      name: /^Hang the lamps 23\scm above the shelf; run them 12\sh from 06:00$/,
    }),
  ).toBeVisible();
  await expect(sheet).toContainText('far more light than does them good');
  await page.getByRole('button', { name: 'Hang here' }).click();
  await expect(page.getByTestId('as-it-hangs')).toBeVisible();
  await expect.poll(() => height(page)).toBe(230);
  await expect(page.getByTestId('power')).toContainText('2.16');
});

test('numbers typed in place are understood or refused in place', async ({ page, app }) => {
  await open(page, app);
  const hours = page.getByLabel('Hours of light a day');
  await hours.fill('13,5');
  await hours.press('Enter');
  await expect(page.getByTestId('power')).toContainText('2.43');
  const lamps = page.getByLabel('Lamp height above the shelf');
  await lamps.fill('90');
  await lamps.press('Enter');
  await expect(page.getByRole('alert')).toContainText('From 1\u00a0cm to 39\u00a0cm');
  await lamps.fill('high');
  await lamps.press('Enter');
  await expect(page.getByRole('alert')).toContainText('is not a number');
  await expect.poll(async () => (await plan(page, app)).revision).toBe(2);
});

test('units switch to inches and Fahrenheit and stay after a reload', async ({ page, app }) => {
  await open(page, app);
  await expect(page.getByTestId('gap')).toContainText('cm');
  await page.getByRole('button', { name: /^Units/ }).click();
  await expect(page.getByTestId('gap')).toContainText('in');
  await page.reload();
  await expect(page.getByTestId('gap')).toContainText('in');
  await page.keyboard.press('ArrowUp');
  // A quarter of an inch a step.
  await expect.poll(() => height(page)).toBeCloseTo(37 * 6.35, 1);
});

test('every figure answers why', async ({ page, app }) => {
  await open(page, app);
  await page.getByRole('button', { name: 'Why this DLI?' }).click();
  await expect(page.getByText(/times 0.0036/)).toBeVisible();
  await page.getByRole('button', { name: 'Why this PPFD?' }).click();
  await expect(page.getByText(/CIE 015/)).toBeVisible();
});

test('trays and racks that share their names are shown in every view', async ({ page, app }) => {
  await page.request.post(`${app.url}/api/plans`, {
    data: { plan: largePlan(4), word: 'began' },
  });
  for (const view of ['', 'sowing', 'seeds', 'power', 'setup', 'print']) {
    await page.goto(`${app.url}/${view}?on=2027-04-09`);
    await expect(page.locator('main')).not.toBeEmpty();
    await page.waitForLoadState('networkidle');
    await expect(page.getByText('Something went wrong')).toHaveCount(0);
  }
  await page.goto(`${app.url}/?on=2027-04-09`);
  await expect(page.locator('[data-bay="r0/t2"]')).toBeVisible();
});
