// What to sow, how many and when: strands, packets, frosts on record and the calendar.
import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test, type App } from '../app.ts';

const plan = async (page: Page, app: App) =>
  (await (await page.request.get(`${app.url}/api/plans/1`)).json()).plan;
const sowing = async (page: Page, app: App, id: string) =>
  (await plan(page, app)).sowings.find((s: { id: string }) => s.id === id);

test('a strand is nudged and dragged, and says what follows', async ({ page, app }) => {
  await page.goto(`${app.url}/sowing?on=2027-04-09`);
  const strand = page.getByTestId('strand-cucumber');
  await expect(strand).toHaveAccessibleName(/Cucumber ‘Long Acre’: sow .* out/);
  // What is told goes away again: it is waited for from the first key on.
  const told = expect(
    page.getByRole('status').filter({ hasText: 'Sowing dates moved' }),
  ).toContainText('Cucumber ‘Long Acre’', { timeout: 20_000 });
  await strand.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('Shift+ArrowLeft');
  await expect.poll(async () => (await sowing(page, app, 'cucumber')).shift_days).toBe(-21);
  await told;
  await page.keyboard.press('Enter');
  const sheet = page.getByTestId('sowing-sheet');
  await expect(sheet).toContainText('The chance of frost after planting out is');
  await sheet
    .getByRole('button', { name: /^Move the sowing .* later/ })
    .first()
    .click();
  await expect.poll(async () => (await sowing(page, app, 'cucumber')).shift_days).not.toBe(-21);
  await page.getByTestId('strand-melon').scrollIntoViewIfNeeded();
  const melon = (await page.getByTestId('strand-melon').boundingBox())!;
  await page.mouse.move(melon.x + 760, melon.y + 20);
  await page.mouse.down();
  await page.mouse.move(melon.x + 790, melon.y + 20, { steps: 6 });
  await page.mouse.up();
  await expect
    .poll(async () => (await sowing(page, app, 'melon')).shift_days ?? 0)
    .toBeGreaterThan(2);
});

test('what is sown stays on its day, and a cooler room moves only the rest', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/sowing?sowing=cucumber&on=2027-03-20`);
  const days = page.getByTestId('sowing-days');
  await days.getByRole('checkbox', { name: /^It is sown/ }).check();
  await expect.poll(async () => (await sowing(page, app, 'cucumber')).sown).toBe(true);
  const day = (await sowing(page, app, 'cucumber')).sow_on;
  await days.getByLabel('I plant out on').fill('1 June');
  await days.getByLabel('I plant out on').press('Enter');
  await expect.poll(async () => (await sowing(page, app, 'cucumber')).out_on).toBe('2027-06-01');
  await page.goto(`${app.url}/setup?on=2027-03-20`);
  await page.getByLabel('Air by day').fill('14');
  await page.getByLabel('Air by day').press('Enter');
  const told = page.getByRole('status').filter({ hasText: 'Sowing dates moved' });
  await expect(told).toContainText(/\d+ days earlier/);
  await expect(told).not.toContainText('Cucumber');
  expect((await sowing(page, app, 'cucumber')).sow_on).toBe(day);
});

test('strands are filtered and grouped, and a sowing is repeated and taken out', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/sowing?on=2027-04-09`);
  await page.getByRole('searchbox', { name: 'Show' }).fill('lettuce');
  await expect(page.locator('[data-testid^=strand-]')).toHaveCount(3);
  await page.getByLabel('Order').selectOption('by week to sow');
  await expect(page.getByRole('heading', { name: /^week of/ }).first()).toBeVisible();
  await page.getByRole('button', { name: /Lettuce Green Quilt/ }).click();
  const sheet = page.getByTestId('sowing-sheet');
  await sheet.getByLabel('days apart').fill('10');
  await sheet.getByRole('button', { name: 'Sow again' }).click();
  await expect(page.locator('[data-testid^=strand-]')).toHaveCount(5);
  const shifts = (await plan(page, app)).sowings
    .filter((s: { id: string }) => s.id.startsWith('lettuce-2') || s.id.startsWith('lettuce-3'))
    .map((s: { shift_days: number }) => s.shift_days);
  expect(shifts).toEqual([10, 20]);
  await sheet.getByRole('button', { name: 'Delete this sowing' }).click();
  await expect(page.locator('[data-testid^=strand-]')).toHaveCount(4);
  await page.getByRole('button', { name: 'Six weeks, day by day' }).click();
  await expect(page.getByRole('button', { name: 'The whole season' })).toBeVisible();
});

test('a crop is sown, its figures are changed, and its source is told', async ({ page, app }) => {
  await page.goto(`${app.url}/seeds?on=2027-04-09`);
  await page.getByRole('searchbox', { name: 'Crop' }).fill('pea');
  const crops = page.getByTestId('crops');
  await expect(crops).toContainText('sow outdoors');
  await page.getByRole('searchbox', { name: 'Crop' }).fill('basil');
  await crops.getByRole('button', { name: /^Basil/ }).click();
  await expect(crops).toContainText("growers' usual practice");
  await crops.getByRole('button', { name: 'Sow some' }).click();
  const dialog = page.getByRole('dialog').last();
  await dialog.getByLabel('Variety').fill('Lamp Green');
  await dialog.getByLabel('Plants wanted', { exact: true }).fill('24');
  await dialog.getByLabel('Plants wanted', { exact: true }).press('Tab');
  await dialog.getByRole('button', { name: 'Sow 24 × Basil' }).click();
  await expect(page.getByTestId('sowing-sheet')).toContainText('Basil ‘Lamp Green’');
  await page.goto(`${app.url}/seeds?on=2027-04-09`);
  await expect(page.getByTestId('order')).toContainText('Basil ‘Lamp Green’');
  await page.getByRole('searchbox', { name: 'Crop' }).fill('basil');
  await crops.getByRole('button', { name: /^Basil/ }).click();
  await crops.getByLabel('Weeks indoors').fill('8');
  await crops.getByLabel('Weeks indoors').press('Enter');
  await expect.poll(async () => (await plan(page, app)).crops?.[0].weeks_indoors).toBe(8);
  await expect(crops).toContainText('your own figure');
  await crops.getByRole('button', { name: 'Back to the library’s figures' }).click();
  await expect.poll(async () => (await plan(page, app)).crops).toBeUndefined();
});

test('how many to sow follows a germination test, and a packet is kept', async ({ page, app }) => {
  await page.goto(`${app.url}/seeds?on=2027-04-09`);
  const many = page.getByRole('region', { name: 'How many' });
  await expect(page.getByTestId('how-many')).toContainText('Sow 17 cells, 2 per cell');
  await many.getByLabel('Test: came up').fill('3');
  await many.getByLabel('Test: came up').press('Enter');
  await many.getByLabel('out of').fill('10');
  await many.getByLabel('out of').press('Enter');
  await expect(page.getByTestId('how-many')).toContainText('90 % certainty');
  const packets = page.getByRole('region', { name: 'Packets' });
  await packets.getByLabel('A packet of').selectOption('Borage');
  await packets.getByRole('button', { name: 'Add' }).click();
  await expect.poll(async () => (await plan(page, app)).packets.at(-1).crop).toBe('borage');
  await packets.getByLabel('Seeds left').fill('25');
  await packets.getByLabel('Seeds left').press('Enter');
  await expect.poll(async () => (await plan(page, app)).packets.at(-1).seeds).toBe(25);
});

test('minima are looked at before they are kept, and a bad row is numbered', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/setup?on=2027-04-09`);
  const rows: string[] = [];
  for (let year = 2015; year < 2026; year++)
    for (let day = 0; day < 365; day++) {
      const date = new Date(Date.UTC(year, 0, 1 + day)).toISOString().slice(0, 10);
      rows.push(`${date},${day < 110 + (year % 7) * 3 ? -1 : 8}`);
    }
  const upload = (text: string) =>
    page.getByLabel('File of daily lows').setInputFiles({
      name: 'garden.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(text),
    });
  await upload(`date,min\n${rows.join('\n').replace(',8\n', ',forty\n')}`);
  const preview = page.getByTestId('frost-preview');
  await expect(preview).toContainText('nothing is taken');
  await expect(preview).toContainText(/Row \d+/);
  expect((await plan(page, app)).site.frost).toBeUndefined();
  await upload(`date,min\n${rows.join('\n')}`);
  await expect(preview).toContainText('by 11 years');

  await page.getByLabel('How cautious').selectOption('careful');
  await page.getByRole('button', { name: /^Take .* as the last frost/ }).click();
  await expect.poll(async () => (await plan(page, app)).site.frost?.years.length).toBe(11);
  expect((await plan(page, app)).site.frost.caution).toBe('careful');
});

test('the calendar can be saved and subscribed to', async ({ page, app }) => {
  await page.goto(`${app.url}/setup?on=2027-04-09`);
  const address = await page.getByLabel('Address to subscribe to').inputValue();
  const calendar = await (await page.request.get(address)).text();
  expect(calendar).toContain('BEGIN:VCALENDAR');
  expect(calendar).toContain('UID:sow-onion-plan-1@faint-sunrise.invalid');
});

for (const view of ['sowing', 'seeds']) {
  for (const ground of ['light', 'dark'] as const) {
    test(`axe finds nothing in ${view} on a ${ground} ground`, async ({ page, app }) => {
      await page.emulateMedia({ colorScheme: ground });
      await page.goto(`${app.url}/${view}?on=2027-04-09`);
      await expect(page.getByText('Onion').first()).toBeVisible();
      const { violations } = await new AxeBuilder({ page }).analyze();
      expect(violations.map((v) => `${v.id}: ${v.nodes[0]?.html}`)).toEqual([]);
    });
  }
}

test('lettuce is sown for the autumn, counted back from the first frost', async ({ page, app }) => {
  await page.goto(`${app.url}/setup?on=2027-04-09`);
  const frost = page.getByLabel(/^First frost of autumn/);
  await frost.fill('12 October');
  await frost.press('Enter');
  await expect.poll(async () => (await plan(page, app)).site.first_frost).toBe('2027-10-12');

  await page.goto(`${app.url}/seeds?on=2027-04-09`);
  const crops = page.getByTestId('crops');
  await page.getByRole('searchbox', { name: 'Crop' }).fill('lettuce');
  await crops.getByRole('button', { name: /^Lettuce/ }).click();
  await crops.getByRole('button', { name: /^Sow/ }).click();
  const dialog = page.getByRole('dialog').last();
  await dialog.getByRole('checkbox', { name: /^For the autumn/ }).check();
  await expect(dialog).toContainText(/ready by .*(Sept|Oct)/);
  await dialog.getByRole('button', { name: /^Sow \d+ × Lettuce/ }).click();
  const sheet = page.getByTestId('sowing-sheet');
  await expect(sheet.getByRole('checkbox', { name: /^For the autumn/ })).toBeChecked();
  const own = (await plan(page, app)).sowings.find((s: { autumn?: boolean }) => s.autumn);
  expect(own.crop).toBe('lettuce');
  expect((await plan(page, app)).season.to > '2027-07-31').toBe(true);
});
