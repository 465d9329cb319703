// Light: what is measured, what moves on which day, and what another set-up would give.
import type { Page } from '@playwright/test';
import { expect, test, type App } from '../app.ts';

async function open(page: Page, app: App, bay: string) {
  await page.goto(`${app.url}/?on=2027-04-09&bay=${bay}`);
  await expect(page.getByTestId('measures')).toBeVisible();
}

const tier = async (page: Page, app: App, index: number) =>
  (await (await page.request.get(`${app.url}/api/plans/1`)).json()).plan.places[0].tiers[index];

const mean = async (page: Page) =>
  Number(await page.getByTestId('ppfd').getByRole('cell').nth(0).textContent());

test('measures say what is too little, too much, and what a lux meter shows', async ({
  page,
  app,
}) => {
  await open(page, app, 'door/t2');
  const measures = page.getByTestId('measures');
  await expect(measures).toContainText(/0\s?% of cells get too little, 8\d\s?% too much/);
  await expect(measures).toContainText(/lux meter on the leaves reads 2\d{4} at ✕/);
  await expect(page.getByText('The white line runs along the edge')).toBeVisible();
});

test('chains move by links, on days that are listed', async ({ page, app }) => {
  await open(page, app, 'door/t2');
  await page.getByLabel('The gap is changed by').selectOption('lamps on chains, link by link');
  await expect(page.getByRole('heading', { name: /links up to .* \(link \d+\)/ })).toBeVisible();
  const list = page.getByTestId('adjustments').getByRole('listitem');
  await expect(list.first()).toContainText(/9 Apr.*links? up, to link \d+/);
  await page.getByRole('button', { name: 'Hang here' }).click();
  await expect(page.getByTestId('as-it-hangs')).toBeVisible();
  await expect
    .poll(async () => (await tier(page, app, 1)).adjust)
    .toEqual({
      chain: { link_mm: 25 },
    });
});

test('foil under the deck above and on the sides sends light back', async ({ page, app }) => {
  await open(page, app, 'door/t2');
  const before = await mean(page);
  for (const side of ['Left side', 'Right side', 'Back side', 'Front side']) {
    await page.getByLabel(side).selectOption('foil film');
  }
  await page.getByLabel('Under the deck above').selectOption('foil film');
  await expect.poll(() => mean(page)).toBeGreaterThan(1.3 * before);
  await expect(page.getByTestId('measures')).toContainText('Walls and decks send back');
  await expect.poll(async () => (await tier(page, app, 1)).sides.top).toBe('foil');
});

test('other set-ups are compared, and one is taken', async ({ page, app }) => {
  await open(page, app, 'door/t1');
  await page.getByRole('button', { name: 'Compare set-ups' }).click();
  await page.getByLabel('Beside what is there').selectOption('One more lamp like these');
  await expect(page.getByTestId('differences')).toContainText('of the cells get the right light');
  await expect(page.getByTestId('compared')).toContainText('Costs a day');
  await page.getByRole('button', { name: 'Set it up like this' }).click();
  await expect.poll(async () => (await tier(page, app, 0)).lamps.length).toBe(3);
  await page.keyboard.press('u');
  await expect.poll(async () => (await tier(page, app, 0)).lamps.length).toBe(2);
});

test('a photometric file is read, and a broken one says which line', async ({ page, app }) => {
  await open(page, app, 'door/t2');
  await page.getByRole('region', { name: 'Gear' }).getByRole('group').first().click();
  const input = page.getByLabel('Measured light, from an IES file').first();
  const good =
    'IESNA:LM-63-2002\nTILT=NONE\n1 -1 1 3 1 1 2 0.04 1.15 0\n1 1 30\n0 45 90\n0\n900 636 0\n';
  const upload = (text: string) =>
    input.setInputFiles({ name: 'strip.ies', mimeType: 'text/plain', buffer: Buffer.from(text) });
  await upload(good.replace('45 90', 'x 90'));
  await expect(page.getByRole('alert')).toContainText('line 5');
  await upload(good);
  await expect.poll(async () => (await tier(page, app, 1)).lamps[0].watts).toBe(30);
  const lamp = (await tier(page, app, 1)).lamps[0];
  expect(lamp.distribution.candela[0]).toEqual([900, 636, 0]);
  expect(lamp.flux_lm).toBeGreaterThan(2300);
  await expect(page.getByLabel('It shines').first()).toHaveValue('measured');
});
