// Warmth: root zones by the hour, the chamber shelf by shelf, and what to do about both.
import type { Page } from '@playwright/test';
import { expect, test, type App } from '../app.ts';

async function open(page: Page, app: App, bay: string, day: string) {
  await page.goto(`${app.url}/?on=${day}&bay=${bay}&chapter=warmth`);
  await expect(page.getByTestId('roots')).toBeVisible();
}

test('root zones tell warmth, water and when seedlings show', async ({ page, app }) => {
  await open(page, app, 'door/t3', '2027-03-20');
  const roots = page.getByTestId('roots');
  await expect(roots).toContainText(/Pe2 2[67](\.\d)?\s°C on average/);
  await expect(roots).toContainText(/on for \d+% of the day/);
  await expect(roots).toContainText(/Lantern Row’: First up after \d/);
  await expect(roots).toContainText('The mat cannot reach the 26');
  await expect(
    page.getByRole('img', { name: /Root-zone temperature through the day/ }),
  ).toBeVisible();
  await page.getByRole('button', { name: /more to do here/ }).click();
  await expect(
    page.getByRole('heading', { name: /Lay 2\scm of foam under the mat/ }),
  ).toBeVisible();
  await page.getByRole('tab', { name: 'Air' }).click();
  await expect(page.getByTestId('air')).toContainText('kPa');
});

test('a probe in the air is found, and put right with one click', async ({ page, app }) => {
  await open(page, app, 'door/t3', '2027-03-20');
  await page.getByRole('tab', { name: 'Gear' }).click();
  const gear = page.getByRole('region', { name: 'Gear', exact: true });
  await gear.getByText('heat mat with thermostat').click();
  await gear.getByLabel('Probe').selectOption('in the air');
  await expect(
    page.getByRole('heading', { name: 'Push the probe of the thermostat into the mix' }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Done: probe in the mix' }).click();
  const mat = async () =>
    (await (await page.request.get(`${app.url}/api/plans/1`)).json()).plan.places[0].tiers[2]
      .mats[0];
  await expect.poll(async () => (await mat()).probe).toBe('mix');
  await expect(gear.getByLabel('Probe')).toHaveValue('mix');
});

test('a chamber is warmer on top, and another setting moves all shelves', async ({ page, app }) => {
  await open(page, app, 'cabinet/t2', '2027-03-20');
  const chamber = page.getByTestId('chamber');
  await expect(chamber).toContainText('Shelf 6');
  await expect(page.getByTestId('chamber-day')).toContainText('kWh a day');
  const shelves = async () => {
    const name = await page
      .getByRole('img', { name: /Air of the chamber/ })
      .getAttribute('aria-label');
    return [...name!.matchAll(/([\d.]+)\s°C/g)].map((match) => Number(match[1]));
  };
  const before = await shelves();
  expect(before).toHaveLength(6);
  expect(before[5]).toBeGreaterThan(before[0]!);
  await page.goto(`${app.url}/?on=2027-03-20&bay=cabinet/t1`);
  await page.getByRole('tab', { name: 'Gear' }).click();
  const gear = page.getByRole('region', { name: 'Gear', exact: true });
  await gear.getByText('heat mat with thermostat').click();
  await gear.getByLabel('Thermostat', { exact: true }).fill('25');
  await gear.getByLabel('Thermostat', { exact: true }).press('Enter');
  await page.getByRole('tab', { name: 'Warmth' }).click();
  await expect.poll(async () => (await shelves())[3]).toBeGreaterThan(before[3]! + 2);
});

test('dates say what root zone they were reckoned with', async ({ page, app }) => {
  await page.goto(`${app.url}/setup?on=2027-04-09`);
  await expect(page.getByText('Lettuce ‘Green Quilt’')).toBeVisible();
  const melon = page.getByRole('row', { name: /Melon/ });
  await melon.getByRole('button', { name: 'Why this day it comes up?' }).click();
  await expect(page.getByText(/half are up .* with .* at 2\d/)).toBeVisible();
});

test('other ways to warm a tray, each with its gain', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-03-20&bay=door/t3&chapter=warmth`);
  await page.getByRole('button', { name: 'Compare ways to warm these trays' }).click();
  const ways = page.getByTestId('warm-ways');
  await expect(ways.getByText('No heat but the room')).toBeVisible();
  await expect(ways).toContainText('On the warm top of an appliance');
  await expect(ways).toContainText('Film all round the shelf');
  await expect(ways).toContainText('In Proving cabinet');
  await expect(ways.locator('li').first()).toContainText('As it is');
});

test('a chamber tried with other vents keeps those that are taken', async ({ page, app }) => {
  await open(page, app, 'cabinet/t2', '2027-03-20');
  await page.getByRole('button', { name: 'Try other ways' }).click();
  const doubled = page.getByTestId('chamber-ways').locator('li', { hasText: 'twice as high' });
  await expect(doubled).toContainText('a day');
  const plan = async () => (await (await page.request.get(`${app.url}/api/plans/1`)).json()).plan;
  const vents = async () =>
    (await plan()).places.find((p: { id: string }) => p.id === 'cabinet').kind.chamber.vents;
  const before = (await vents())[0].height_mm;
  await doubled.getByRole('button', { name: 'Do this' }).click();
  await expect.poll(async () => (await vents())[0].height_mm).toBe(2 * before);
});

test('mats go round by turns, and only to what deserves one', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-04-09`);
  await page.getByRole('button', { name: 'Plan the mats' }).click();
  await expect(page.getByTestId('mats-verdict')).toContainText('trays gain from a mat');
  const worth = page.getByTestId('mats-worth');
  await expect(worth.locator('li', { hasText: 'Lettuce ‘Green Quilt’' })).toContainText(
    /not worth a mat|Warm enough/,
  );
  await expect(page.getByRole('img', { name: /Sharing the heat mats: place 1/ })).toBeVisible();
});

test('days away name what dries first', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-04-09`);
  await page.getByLabel('Away from').fill('2027-04-09');
  await page.getByLabel('up to').fill('2027-04-20');
  await page.getByRole('button', { name: 'Add' }).click();
  const dries = page.getByTestId('dries');
  await expect(dries.locator('li').first()).toContainText(/dry by .* before you are back/);
  await expect(page.getByText(/Before you leave|Ask someone to water/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(dries).toBeHidden();
});

test('a mat’s foam, dial and play are noted, and left out again', async ({ page, app }) => {
  await open(page, app, 'door/t3', '2027-03-20');
  const mat = async () =>
    (await (await page.request.get(`${app.url}/api/plans/1`)).json()).plan.places[0].tiers[2]
      .mats[0];
  await page.getByRole('tab', { name: 'Gear' }).click();
  const gear = page.getByRole('region', { name: 'Gear', exact: true });
  await gear.getByText('heat mat with thermostat').click();
  for (const [label, typed, field, held] of [
    ['Foam underneath', '2', 'pad_mm', 20],
    ['Dial error', '1.5', 'dial_error_k', 1.5],
    ['Thermostat swing', '2', 'hysteresis_k', 2],
  ] as const) {
    await gear.getByLabel(label).fill(typed);
    await gear.getByLabel(label).press('Enter');
    await expect.poll(async () => (await mat())[field]).toBe(held);
  }
  await gear.getByLabel('Foam underneath').fill('');
  await gear.getByLabel('Foam underneath').press('Enter');
  await expect.poll(async () => (await mat()).pad_mm).toBeUndefined();
});

test('a chamber has its probe and its limit', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-03-20&place=cabinet`);
  const sheet = page.getByRole('complementary', { name: 'Panel' });
  const chamber = async () =>
    (await (await page.request.get(`${app.url}/api/plans/1`)).json()).plan.places.find(
      (p: { id: string }) => p.id === 'cabinet',
    ).kind.chamber;
  await sheet.getByLabel('Probe above the floor').fill('140');
  await sheet.getByLabel('Probe above the floor').press('Enter');
  await expect.poll(async () => (await chamber()).probe_mm).toBe(1400);
  await sheet.getByLabel('Upper limit').fill('18');
  await sheet.getByLabel('Upper limit').press('Enter');
  await expect.poll(async () => (await chamber()).limit_c).toBe(18);
  await page.goto(`${app.url}/?on=2027-03-20&bay=cabinet/t6&chapter=warmth`);
  await expect(page.getByText(/past the limit of 18/).first()).toBeVisible();
});

test('figures of warmth follow the reader’s units', async ({ page, app }) => {
  await open(page, app, 'door/t3', '2027-03-20');
  await page.getByRole('button', { name: /^Units/ }).click();
  await expect(page.getByTestId('roots')).toContainText(/Pe2 \d\d\s°F on average/);
  await page.getByRole('button', { name: /more to do here/ }).click();
  await expect(page.getByRole('heading', { name: /Lay [\d.]+\sin of foam/ })).toBeVisible();
  await page.getByRole('button', { name: 'Compare ways to warm these trays' }).click();
  const ways = page.getByTestId('warm-ways');
  await expect(ways).toContainText('°F');
  await expect(ways).not.toContainText('°C');
});
