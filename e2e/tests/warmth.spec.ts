// Warmth: root zones by the hour, the chamber shelf by shelf, and what to do about both.
import type { Page } from '@playwright/test';
import { expect, test, type App } from '../app.ts';

async function open(page: Page, app: App, bay: string, day: string) {
  await page.goto(`${app.url}/?on=${day}&bay=${bay}`);
  await expect(page.getByTestId('roots')).toBeVisible();
}

test('root zones tell warmth, water and when seedlings show', async ({ page, app }) => {
  await open(page, app, 'door/t3', '2027-03-20');
  const roots = page.getByTestId('roots');
  await expect(roots).toContainText(/Pe2 2[67](\.\d)?\s°C on the mean/);
  await expect(roots).toContainText(/on for \d+% of the day/);
  await expect(roots).toContainText(/Lantern Row: The first show after \d/);
  await expect(roots).toContainText('It does not reach the 26');
  await expect(
    page.getByRole('img', { name: /Root-zone temperature through the day/ }),
  ).toBeVisible();
  await expect(page.getByTestId('air')).toContainText('kPa');
  await expect(
    page.getByRole('heading', { name: /Lay 2\scm of foam under the mat/ }),
  ).toBeVisible();
});

test('a probe in the air is found, and put right with one click', async ({ page, app }) => {
  await open(page, app, 'door/t3', '2027-03-20');
  const gear = page.getByRole('region', { name: 'Gear' });
  await gear.getByText('heat mat with thermostat').click();
  await gear.getByLabel('Its probe is').selectOption('in the air');
  await expect(
    page.getByRole('heading', { name: 'Push the probe of the thermostat into the mix' }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'It is in the mix now' }).click();
  const mat = async () =>
    (await (await page.request.get(`${app.url}/api/plans/1`)).json()).plan.places[0].tiers[2]
      .mats[0];
  await expect.poll(async () => (await mat()).probe).toBe('mix');
  await expect(gear.getByLabel('Its probe is')).toHaveValue('mix');
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
  const gear = page.getByRole('region', { name: 'Gear' });
  await gear.getByText('heat mat with thermostat').click();
  await gear.getByLabel('Thermostat').fill('25');
  await gear.getByLabel('Thermostat').press('Enter');
  await expect.poll(async () => (await shelves())[3]).toBeGreaterThan(before[3]! + 2);
});

test('dates say what root zone they were reckoned with', async ({ page, app }) => {
  await page.goto(`${app.url}/setup?on=2027-04-09`);
  await expect(page.getByText('Lettuce, Green Quilt')).toBeVisible();
  const parsley = page.getByRole('row', { name: /Parsley/ });
  await parsley.getByRole('button', { name: 'Why this day it shows?' }).click();
  await expect(page.getByText(/half are up .* with the root zone at 2\d/)).toBeVisible();
});

test('other ways to warm a tray, each with its gain', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-03-20&bay=door/t3`);
  await page.getByRole('button', { name: 'Compare ways to warm it' }).click();
  const ways = page.getByTestId('warm-ways');
  await expect(ways.getByText('No heat but the room')).toBeVisible();
  await expect(ways).toContainText('On the warm top of an appliance');
  await expect(ways).toContainText('Film all round the bay');
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
  await page.getByRole('button', { name: 'Share out the mats' }).click();
  await expect(page.getByTestId('mats-verdict')).toContainText('trays are worth a mat');
  const worth = page.getByTestId('mats-worth');
  await expect(worth.locator('li', { hasText: 'Lettuce, Green Quilt' })).toContainText(
    /not worth a mat|Warm enough/,
  );
  await expect(page.getByRole('img', { name: /Mats by turns: place 1/ })).toBeVisible();
});

test('days away name what dries first', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-04-09`);
  await page.getByLabel('Away from').fill('2027-04-09');
  await page.getByLabel('up to').fill('2027-04-20');
  await page.getByRole('button', { name: 'Note it' }).click();
  const dries = page.getByTestId('dries');
  await expect(dries.locator('li').first()).toContainText(/dry by .* before you are back/);
  await expect(page.getByText(/before you leave|Have somebody water/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Take out', exact: true }).click();
  await expect(dries).toBeHidden();
});

test('a mat’s foam, dial and play are noted, and left out again', async ({ page, app }) => {
  await open(page, app, 'door/t3', '2027-03-20');
  const mat = async () =>
    (await (await page.request.get(`${app.url}/api/plans/1`)).json()).plan.places[0].tiers[2]
      .mats[0];
  const gear = page.getByRole('region', { name: 'Gear' });
  await gear.getByText('heat mat with thermostat').click();
  for (const [label, typed, field, held] of [
    ['Foam under it', '2', 'pad_mm', 20],
    ['Dial is off by', '1.5', 'dial_error_k', 1.5],
    ['Switches within', '2', 'hysteresis_k', 2],
  ] as const) {
    await gear.getByLabel(label).fill(typed);
    await gear.getByLabel(label).press('Enter');
    await expect.poll(async () => (await mat())[field]).toBe(held);
  }
  await gear.getByLabel('Foam under it').fill('');
  await gear.getByLabel('Foam under it').press('Enter');
  await expect.poll(async () => (await mat()).pad_mm).toBeUndefined();
});

test('a chamber has its probe and its limit', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-03-20&place=cabinet`);
  const sheet = page.getByRole('complementary', { name: 'Sheet' });
  const chamber = async () =>
    (await (await page.request.get(`${app.url}/api/plans/1`)).json()).plan.places.find(
      (p: { id: string }) => p.id === 'cabinet',
    ).kind.chamber;
  await sheet.getByLabel('Probe over the floor').fill('140');
  await sheet.getByLabel('Probe over the floor').press('Enter');
  await expect.poll(async () => (await chamber()).probe_mm).toBe(1400);
  await sheet.getByLabel('Too hot over').fill('18');
  await sheet.getByLabel('Too hot over').press('Enter');
  await expect.poll(async () => (await chamber()).limit_c).toBe(18);
  await page.goto(`${app.url}/?on=2027-03-20&bay=cabinet/t6`);
  await expect(page.getByText(/over its limit of 18/)).toBeVisible();
});

test('figures of warmth follow the reader’s units', async ({ page, app }) => {
  await open(page, app, 'door/t3', '2027-03-20');
  await page.getByRole('button', { name: /^Units/ }).click();
  await expect(page.getByTestId('roots')).toContainText(/Pe2 \d\d\s°F on the mean/);
  await expect(page.getByRole('heading', { name: /Lay [\d.]+\sin of foam/ })).toBeVisible();
  await page.getByRole('button', { name: 'Compare ways to warm it' }).click();
  const ways = page.getByTestId('warm-ways');
  await expect(ways).toContainText('°F');
  await expect(ways).not.toContainText('°C');
});
