// The Power view: loads on circuits, windows of lamps, cords, what it costs, and the safety sheet.
import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test, type App } from '../app.ts';

interface Plan {
  places: { id: string; tiers: { id: string; lights_on_h?: number; lamps: Plug[] }[] }[];
  wiring?: { feeds: { id: string; into?: string }[]; appliances: Plug[] };
}
interface Plug {
  name: string;
  plugged?: string;
}

async function planOf(page: Page, app: App): Promise<Plan> {
  const answer = await page.request.get(`${app.url}/api/last-plan`);
  return ((await answer.json()) as { plan: Plan }).plan;
}

const tier = (plan: Plan, place: string, id: string) =>
  plan.places.find((p) => p.id === place)!.tiers.find((t) => t.id === id)!;

test('a window of lamps moves in steps of its timer, and comes back by undo', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/?on=2027-04-10`);
  // Keys are heard once the plan is there.
  await expect(page.getByRole('heading', { name: 'The room', exact: true })).toBeVisible();
  await page.keyboard.press('5');
  await expect(page.getByRole('heading', { name: 'The day on each circuit' })).toBeVisible();
  const window = page.getByRole('slider', { name: 'Timer 2 goes on' });
  await expect(window).toHaveAttribute('aria-valuetext', '06:00 to 21:00');
  await window.focus();
  await page.keyboard.press('ArrowRight');
  await expect(window).toHaveAttribute('aria-valuetext', '06:15 to 21:15');
  await expect.poll(async () => tier(await planOf(page, app), 'door', 't2').lights_on_h).toBe(6.25);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(window).toHaveAttribute('aria-valuetext', '06:00 to 21:00');
});

test('what the lamps cost is said unasked, and a click makes it less', async ({ page, app }) => {
  await page.goto(`${app.url}/power?on=2027-04-10`);
  const savings = page.getByTestId('savings');
  await expect(savings).toContainText('a day for 17 trays', { timeout: 60_000 });
  await expect(savings).toContainText('the same light is to be had for');
  const season = page.getByTestId('season-cost');
  await expect(season).toContainText('chamber heat');
  const before = await season.textContent();
  await savings.getByRole('button', { name: 'Change it' }).first().click();
  await expect(season).not.toHaveText(before!);
});

test('a heater on a strip is found, and settled by its plug', async ({ page, app }) => {
  await page.goto(`${app.url}/power?on=2027-04-10`);
  const cords = page.getByTestId('cords');
  await cords.getByRole('button', { name: 'oil-filled radiator' }).click();
  const plug = page.getByTestId('plug').getByRole('combobox');
  await plug.selectOption({ label: 'Strip from the hall' });
  const advice = page.getByRole('region', { name: 'What to do' });
  await expect(advice).toContainText('Plug oil-filled radiator into a socket of its own');
  await expect(advice).toContainText('licensed electrician');
  await cords.getByRole('button', { name: 'oil-filled radiator' }).click();
  await plug.selectOption({ label: 'Second socket in the hall' });
  await expect(advice).not.toContainText('Plug oil-filled radiator');
});

test('a price typed in the shopping list is counted, and the table is saved', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/power?on=2027-04-10`);
  const buy = page.getByRole('region', { name: 'To buy' });
  await expect(buy.getByTestId('to-buy')).toHaveText('€76.00');
  await buy.getByRole('button', { name: 'Prices, and what is there' }).click();
  const owned = buy
    .getByRole('group', { name: 'linkable LED shop light, 1200 mm, 36 W' })
    .getByRole('textbox', { name: 'There already' });
  await owned.fill('11');
  await owned.press('Enter');
  await expect(buy.getByTestId('to-buy')).toHaveText('€34.00');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('cost-per-sowing.csv');
});

test('a window of lamps is dragged with the mouse', async ({ page, app }) => {
  await page.goto(`${app.url}/power?on=2027-04-10`);
  const window = page.getByRole('slider', { name: 'Timer 3 goes on' });
  await expect(window).toHaveAttribute('aria-valuetext', '06:00 to 20:30');
  const box = (await window.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect(window).not.toHaveAttribute('aria-valuetext', '06:00 to 20:30');
  await expect
    .poll(async () => tier(await planOf(page, app), 'coat', 't1').lights_on_h)
    .toBeGreaterThan(6);
});

test('a newcomer has it proposed what is plugged in where', async ({ page, app }) => {
  const plan = await planOf(page, app);
  delete plan.wiring;
  for (const one of plan.places.flatMap((place) => place.tiers))
    for (const list of ['lamps', 'mats', 'fans'] as const)
      for (const gear of (one as unknown as Record<string, Plug[]>)[list]!) delete gear.plugged;
  await page.request.post(`${app.url}/api/plans`, { data: { plan, word: 'began' } });
  await page.goto(`${app.url}/power?on=2027-04-10`);
  await expect(page.getByText('Nothing is checked until it is said')).toBeVisible();
  await page.getByRole('button', { name: 'Propose how to plug it in' }).click();
  await expect(page.getByTestId('cords')).toContainText('Timer, Door rack');
  await expect(page.getByText('Nothing found with everything on at its label')).toBeVisible();
  await page.keyboard.press('u');
  await expect(page.getByTestId('cords')).not.toContainText('Timer, Door rack');
});

test('a plug is dragged to another strip in the room', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-04-10`);
  await page.getByRole('button', { name: 'Cords' }).click();
  const sketch = page.getByTestId('cord-sketch');
  const feed = (name: string) =>
    sketch.locator('g', { has: page.locator(`title:text-is("${name}")`) });
  const plug = feed('plug of Chain, Door rack tier 2');
  const [from, to] = [
    await plug.last().boundingBox(),
    await feed('Strip from the hall').boundingBox(),
  ];
  await page.mouse.move(from!.x + from!.width / 2, from!.y + from!.height / 2);
  await page.mouse.down();
  await page.mouse.move(to!.x + to!.width / 2, to!.y + to!.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect
    .poll(async () => {
      const { wiring } = await planOf(page, app);
      return wiring!.feeds.find((one) => one.id === 'chain-door-2')!.into;
    })
    .toBe('strip-hall');
});

test('lamps and walls are tried, and the best is set up', async ({ page, app }) => {
  await page.goto(`${app.url}/power?on=2027-04-10`);
  const part = page.getByRole('region', { name: 'The cheapest set-up' });
  await part.getByRole('combobox').selectOption({ label: 'Door rack, Tier 1' });
  await part.getByRole('button', { name: 'Try lamps, walls and mats' }).click();
  await expect(part.getByTestId('frontier')).toBeVisible({ timeout: 20_000 });
  await expect(part).toContainText('of the cells get the light that they want');
  await part.getByRole('button', { name: 'Set the shelf up so' }).click();
  await expect
    .poll(async () => tier(await planOf(page, app), 'door', 't1').lamps[0]!.name)
    .not.toContain('fluorescent');
});

test('a tariff is read from a file, whole or not at all', async ({ page, app }) => {
  await page.goto(`${app.url}/setup?on=2027-04-10`);
  const file = page.getByLabel('Tariff file');
  const csv = (text: string) => ({
    name: 'rates.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(text),
  });
  await file.setInputFiles(csv('days,from,to,price\nall,0:00,7:00,0.2\nall,8:00,24:00,0.3\n'));
  await expect(page.getByRole('alert').first()).toContainText(/no row gives a price at 07:00/i);
  await file.setInputFiles(csv('days,from,to,price\nall,0:00,12:00,0.5\nall,12:00,24:00,-0.01\n'));
  await expect(page.getByText('Prices by the hour, from')).toBeVisible();
  await page.goto(`${app.url}/power?on=2027-04-10`);
  // Who is paid in the afternoon begins later, as far as the quiet hours allow.
  await expect(page.getByRole('button', { name: /^Begin at/ }).first()).toBeVisible();
  await expect(page.getByRole('region', { name: 'What to do' })).toContainText(
    'some hours pay you',
  );
});

test('the safety sheet lists every circuit, and the view has no barriers', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/power?on=2027-04-10`);
  await expect(page.getByTestId('per-plant')).toBeVisible();
  await expect(page.getByTestId('savings')).toBeVisible({ timeout: 20_000 });
  const found = await new AxeBuilder({ page }).analyze();
  expect(found.violations.map((one) => [one.id, one.nodes[0]?.html])).toEqual([]);
  await page.getByRole('link', { name: 'Print a safety sheet' }).click();
  const sheet = page.getByTestId('safety');
  for (const text of ['Boot room circuit', 'Hall circuit', 'drip loop', 'licensed electrician'])
    await expect(sheet).toContainText(text);
});

test('all lit shelves share few settings of their timers by a click', async ({ page, app }) => {
  await page.goto(`${app.url}/power?on=2027-04-10`);
  const timers = page.getByRole('region', { name: 'Few timers for many shelves' });
  await expect(timers).toContainText('Now: 5 settings');
  const one = timers.locator('details', { hasText: 'One setting for all' });
  await one.locator('summary').click();
  await one.getByRole('button', { name: 'Set the timers so' }).click();
  await expect(timers).toContainText('Now: one setting for all');
  await expect(one).toContainText('They are set so.');
  await page.keyboard.press('u');
  await expect(timers).toContainText('Now: 5 settings');
});

test('the whole stand is equipped for a budget', async ({ page, app }) => {
  test.slow();
  await page.goto(`${app.url}/power?on=2027-04-10`);
  const cheapest = page.getByRole('region', { name: 'The cheapest set-up' });
  await cheapest
    .getByLabel('For the plants that stand that day on')
    .selectOption('all lit shelves together');
  await cheapest.getByRole('button', { name: 'Try lamps, walls and mats' }).click();
  const setUp = cheapest.getByTestId('set-up');
  await expect(setUp).toContainText('Door rack, Tier 1:', { timeout: 60_000 });
  await expect(cheapest).toContainText('for €300.00 at the most');
  await cheapest.getByRole('button', { name: 'Set them up so' }).click();
  await expect(page.getByRole('button', { name: /^Undo/ })).toBeEnabled();
});
