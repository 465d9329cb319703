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
  await expect(measures).toContainText(
    /0\s?% of cells get too little light, [4-9]\d\s?% more than they can use/,
  );
  await expect(measures).toContainText(/lux meter on the leaves reads 2\d,\d00\slux at ✕/);
  // With fewer hours the edge of the band runs through the trays.
  const hours = page.getByLabel('Hours of light a day');
  await hours.fill('12');
  await hours.press('Enter');
  await expect(page.getByText('The white line runs along the edge')).toBeVisible();
});

test('chains move by links, on days that are listed', async ({ page, app }) => {
  await open(page, app, 'door/t2');
  await page.getByLabel('How you adjust the gap').selectOption('lamps on chains, link by link');
  await expect(
    page.getByRole('heading', {
      name: /^((Raise|Lower) the lamps to link \d+ \(\d+ (up|down), |Leave the chains; run the lamps )/,
    }),
  ).toBeVisible();
  const list = page.getByTestId('adjustments').getByRole('listitem');
  await expect(list.first()).toContainText(
    /9 Apr.*(links? (up|down), to link \d+|leave the chains)/,
  );
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
  await page.getByRole('tab', { name: 'Space' }).click();
  for (const side of ['Left side', 'Right side', 'Back side', 'Front side']) {
    await page.getByLabel(side).selectOption('foil film');
  }
  await page.getByLabel('Underside of the shelf above').selectOption('foil film');
  await page.getByRole('tab', { name: 'Light' }).click();
  await expect.poll(() => mean(page)).toBeGreaterThan(1.2 * before);
  await expect(page.getByTestId('measures')).toContainText('is reflected light');
  await expect.poll(async () => (await tier(page, app, 1)).sides.top).toBe('foil');
});

test('other set-ups are compared, and one is taken', async ({ page, app }) => {
  await open(page, app, 'door/t1');
  await page.getByRole('button', { name: 'Compare set-ups' }).click();
  await page.getByLabel('Compare with').selectOption('One more lamp like these');
  await expect(page.getByTestId('differences')).toContainText(/average|now/);
  await expect(page.getByTestId('compared')).toContainText('Costs a day');
  await page.getByRole('button', { name: 'Use this set-up' }).click();
  await expect.poll(async () => (await tier(page, app, 0)).lamps.length).toBe(3);
  await page.keyboard.press('u');
  await expect.poll(async () => (await tier(page, app, 0)).lamps.length).toBe(2);
});

test('a photometric file is read, and a broken one says which line', async ({ page, app }) => {
  await open(page, app, 'door/t2');
  await page.getByRole('tab', { name: 'Gear' }).click();
  await page.getByRole('region', { name: 'Gear', exact: true }).getByRole('group').first().click();
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
  await expect(page.getByLabel('Light goes').first()).toHaveValue('measured');
});

test('lamps go on at the hour that the dial or the clock says', async ({ page, app }) => {
  await open(page, app, 'door/t2');
  const hours = page.getByRole('region', { name: 'Hours' });
  await expect(hours).toContainText('From 06:00 to 21:00');
  await page.getByLabel('Lamps on at').fill('19:30');
  await page.getByLabel('Lamps on at').press('Enter');
  await expect(hours).toContainText('7.5 h in the quiet hours');
  await page.getByRole('button', { name: /more to do here/ }).click();
  await expect(page.getByText(/Switch the lamps on at 0\d:\d0/)).toBeVisible();
  const dial = page.getByRole('slider', { name: 'Hours of light' });
  await dial.focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await tier(page, app, 1)).lights_on_h).toBe(20);
  // A quarter turn by hand: from the left of the dial to its top.
  const box = (await dial.locator('xpath=..').boundingBox())!;
  const at = (hour: number) => {
    const angle = ((hour - 12) / 24) * 2 * Math.PI;
    return [
      box.x + box.width / 2 + 57 * Math.sin(angle),
      box.y + box.height / 2 - 57 * Math.cos(angle),
    ] as const;
  };
  await page.mouse.move(...at(22));
  await page.mouse.down();
  await page.mouse.move(...at(1), { steps: 4 });
  await page.mouse.move(...at(4), { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await tier(page, app, 1)).lights_on_h).toBe(2);
  await page.getByRole('button', { name: /^Begin at/ }).click();
  await expect(hours).toContainText(' 0 h in the quiet hours');
});

test('quiet and cheap hours are set up, and no hours end when they begin', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/setup?on=2027-04-09`);
  const hours = page.getByRole('region', { name: 'Hours of the day' });
  await hours.getByLabel('Quiet from').fill('9 pm');
  await hours.getByLabel('Quiet from').press('Enter');
  await expect(hours.getByLabel('Quiet from')).toHaveValue('21:00');
  const site = async () =>
    (await (await page.request.get(`${app.url}/api/plans/1`)).json()).plan.site;
  await expect.poll(async () => (await site()).quiet).toEqual({ from_h: 21, to_h: 6 });
  await hours.getByLabel('to', { exact: true }).fill('21:00');
  await hours.getByLabel('to', { exact: true }).press('Enter');
  await expect(page.getByText('these hours end when they begin')).toBeVisible();
  await expect.poll(async () => (await site()).quiet).toEqual({ from_h: 21, to_h: 6 });
  await hours.getByRole('button', { name: 'Remove quiet hours' }).click();
  await hours.getByLabel('A kWh then, EUR').fill('0,1');
  await hours.getByLabel('A kWh then, EUR').press('Enter');
  await expect.poll(async () => (await site()).cheap.price_per_kwh).toBe(0.1);
  expect((await site()).quiet).toBeUndefined();
});

test('a lux meter is held on the map, and its reading corrects the lamps', async ({
  page,
  app,
}) => {
  await open(page, app, 'door/t1');
  const map = page.getByRole('button', { name: /Hold a lux meter here/ });
  await map.focus();
  await page.keyboard.press('Enter');
  const probe = page.getByTestId('probe');
  await expect(probe).toContainText(/A lux meter should read [\d,]+/);
  const before = await probe.textContent();
  await page.keyboard.press('ArrowRight');
  await expect(probe).not.toHaveText(before!);
  await map.click({ position: { x: 120, y: 70 } });
  await probe.getByLabel('Yours reads').fill('9000');
  await probe.getByLabel('Yours reads').press('Enter');
  await expect(page.getByTestId('reading')).toContainText(/\d+% less than worked out/);
  // The reading is kept for what is learned of several.
  await probe.getByRole('button', { name: 'Note it in the log' }).click();
  await expect(probe).toContainText('Noted in the log');
  const lamp = async () => (await tier(page, app, 0)).lamps[0];
  const lumens = (await lamp()).flux_lm;
  await probe.getByRole('button', { name: /Correct the lamps to/ }).click();
  // What the label says stays; how much of it there is was measured.
  await expect.poll(async () => (await lamp()).measured?.value).toBeLessThan(1);
  expect((await lamp()).flux_lm).toBe(lumens);
  const log = await page.request.get(`${app.url}/api/plans/1/log?kind=measured&limit=5`);
  expect(JSON.stringify(await log.json())).toContain('"spot"');
  await expect(page.getByTestId('reading')).toContainText('Your reading agrees within');
});

test('cells that stretch are named by tray, row and day', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-03-20&bay=door/t4`);
  await expect(
    page.getByText(/leggy below 5.*Until Wed 12 May .*: On1, rows? 1: all/),
  ).toBeVisible();
  await expect(page.getByText('Slashed cells stretch or bleach')).toBeVisible();
  await expect(page.getByTestId('outlook')).toContainText(
    /changes? until .* yet from .* some cells get too much or too little light/,
  );
});

test('colour and the year of a sill are told in numbers', async ({ page, app }) => {
  await open(page, app, 'door/t1');
  await expect(page.getByTestId('colour')).toContainText(/4000.K would give .* 6500.K/);
  await expect(page.getByText('no lamp "for flowering or fruiting"')).toBeVisible();
  await page.goto(`${app.url}/?on=2027-02-09&bay=window/t1`);
  await expect(page.getByTestId('sill')).toContainText('Leafy seedlings: enough light from');
  await expect(page.getByTestId('facing')).toContainText(/north \d.*south \d/);
});

test('the same trays are looked at crosswise and behind a window', async ({ page, app }) => {
  await open(page, app, 'door/t2');
  await page.getByRole('button', { name: 'Compare set-ups' }).click();
  const beside = page.getByLabel('Compare with');
  await beside.selectOption('No lamps: the same trays behind a window');
  await expect(page.getByTestId('compared')).toContainText('0 W');
  await expect(page.getByRole('button', { name: 'Use this set-up' })).toHaveCount(0);
  const stand = async () => {
    const { plan } = await (await page.request.get(`${app.url}/api/plans/1`)).json();
    return plan.trays.find((t: { id: string }) => t.id === 'tc1').stands[1].along;
  };
  const before = await stand();
  await beside.selectOption('The same trays turned crosswise');
  await page.getByRole('button', { name: 'Use this set-up' }).click();
  await expect.poll(stand).not.toBe(before);
});
