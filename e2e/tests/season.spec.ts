// The ribbon, the dates that follow from the last frost, and the shell around them.
import { join } from 'node:path';
import { AxeBuilder } from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, test, type App } from '../app.ts';

interface Plan {
  name: string;
  places: { tiers: { lamps: { height_mm: number }[] }[] }[];
}

test('a date is picked on the ribbon with mouse and keys', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-03-01`);
  const date = page.getByRole('slider', { name: 'Date' });
  await expect(page.getByTestId('date')).toHaveText('Mon 1 March');
  const band = (await page.getByRole('group', { name: /^The season/ }).boundingBox())!;
  await page.mouse.click(band.x + band.width * 0.6, band.y + 40);
  await expect(page.getByTestId('date')).toContainText('April');
  await date.focus();
  const text = await date.getAttribute('aria-valuetext');
  await page.keyboard.press('ArrowRight');
  await expect(date).not.toHaveAttribute('aria-valuetext', text!);
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('}');
  await page.keyboard.press('{');
  await page.keyboard.press(']');
  await page.keyboard.press('[');
  await expect(date).toHaveAttribute('aria-valuetext', text!);
  expect(page.url()).toContain('on=2027-04');
});

test('another last frost moves sowing, emergence and planting out', async ({ page, app }) => {
  await page.goto(`${app.url}/setup?on=2027-04-09`);
  // What is sown already stays on its day.
  const melon = page.getByTestId('dates-melon');
  await expect(melon).toContainText('27 May');
  await expect(melon).toContainText('6 May');
  await expect(melon).toContainText('2 May');
  const frost = page.getByRole('textbox', { name: 'Last frost (half of years are later)' });
  await expect(frost).toHaveValue('6 May 2027');
  await frost.fill('16 may');
  await frost.press('Enter');
  await expect(melon).toContainText('12 May');
  await expect(melon).toContainText('16 May');
  await expect(melon).toContainText('6 Jun');
  await expect(page.getByTestId('history')).toContainText('set the last frost to Sun 16 May');
  await page.reload();
  await expect(melon).toContainText('12 May');
  await page.keyboard.press('u');
  await expect(melon).toContainText('27 May');
  await page.getByRole('button', { name: 'Go here' }).click();
  await expect(melon).toContainText('12 May');
});

test('the last frost is dragged on the ribbon', async ({ page, app }) => {
  await page.goto(`${app.url}/setup?on=2027-03-01`);
  const frost = page.getByRole('slider', { name: 'Last frost' });
  const melon = page.getByTestId('dates-melon');
  await expect(melon).toContainText('27 May');
  const box = (await frost.boundingBox())!;
  await page.mouse.move(box.x + 12, box.y + 30);
  await page.mouse.down();
  await page.mouse.move(box.x + 60, box.y + 30, { steps: 4 });
  await expect(melon).not.toContainText('27 May');
  await page.mouse.up();
  await expect(page.getByTestId('history')).toContainText('set the last frost');
  await frost.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByTestId('history').locator('li')).toHaveCount(3);
});

test('find, keys and closing work without a mouse', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-03-01`);
  // Dates to go to are found once the season is reckoned.
  await expect(page.getByRole('button', { name: /^Coat rack, Tier 2/ })).toBeVisible();
  await page.keyboard.press('/');
  await page.getByRole('combobox').fill('Au1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Coat rack, Tier 2', exact: true })).toBeVisible();
  await expect(page.getByTestId('date')).toContainText('April');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'The room' })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('one week on');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page
    .getByRole('button', { name: /^Door rack, Tier 2/ })
    .first()
    .focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Door rack, Tier 2' })).toBeVisible();
});

test('a plan is saved as a file and opened again', async ({ page, app }) => {
  await page.goto(`${app.url}/setup`);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save the plan as a file' }).click();
  const file = await (await download).path();
  await page.getByLabel('Open a plan file').last().setInputFiles(file);
  await expect
    .poll(async () => (await page.request.get(`${app.url}/api/plans`)).json())
    .toHaveLength(2);
  await page
    .getByLabel('Open a plan file')
    .last()
    .setInputFiles({
      name: 'shopping.json',
      mimeType: 'application/json',
      buffer: Buffer.from('{"eggs": 6}'),
    });
  await expect(page.getByText(/unknown field `eggs`/)).toBeVisible();
});

test('a plan measured in inches opens in inches, with its overhanging trays', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/setup`);
  const fixture = join(import.meta.dirname, '../../demo/alder-bluff.json');
  await page.getByLabel('Open a plan file').last().setInputFiles(fixture);
  await expect(page.getByLabel('Name of the place')).toHaveValue('Alder Bluff');
  await expect(page.getByRole('textbox', { name: /^Last frost/ })).toHaveValue('May 1, 2027');
  await expect(page.getByLabel('Air by day')).toHaveValue('68');
  await page.goto(`${app.url}/?on=2027-04-12&bay=wire/t1`);
  await expect(page.getByTestId('gap')).toContainText('in');
  await expect(page.getByTestId('power')).toContainText('$');
});

/** Somebody else saves a change of the plan that was fetched at revision 1. */
async function elsewhere(page: Page, app: App, change: (plan: Plan) => void) {
  const { plan } = await (await page.request.get(`${app.url}/api/plans/1`)).json();
  change(plan);
  const theirs = { base_revision: 1, word: 'changed elsewhere', plan };
  await page.request.post(`${app.url}/api/plans/1/revisions`, { data: theirs });
}
const words = async (page: Page, app: App): Promise<string[]> =>
  (await (await page.request.get(`${app.url}/api/plans/1/revisions`)).json()).map(
    (r: { word: string }) => r.word,
  );

test('two edits of different fields both survive, and it is said', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-04-09&bay=door/t2`);
  await expect(page.getByTestId('ppfd')).toBeVisible();
  await elsewhere(page, app, (plan) => (plan.name = 'Renamed elsewhere'));
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('Also changed elsewhere meanwhile: changed elsewhere')).toBeVisible();
  await expect(page.getByRole('dialog')).toBeHidden();
  const { plan } = await (await page.request.get(`${app.url}/api/plans/1`)).json();
  expect(plan.name).toBe('Renamed elsewhere');
  expect(plan.places[0].tiers[1].lamps[0].height_mm).toBe(235);
});

for (const [choice, height] of [
  ['Keep mine', 235],
  ['Keep the other', 300],
] as const) {
  test(`two edits of one field are a choice: ${choice}`, async ({ page, app }) => {
    await page.goto(`${app.url}/?on=2027-04-09&bay=door/t2`);
    await expect(page.getByTestId('ppfd')).toBeVisible();
    await elsewhere(page, app, (plan) => {
      plan.name = 'Renamed elsewhere';
      plan.places[0]!.tiers[1]!.lamps.forEach((lamp) => (lamp.height_mm = 300));
    });
    await page.keyboard.press('ArrowUp');
    await expect(page.getByTestId('clashes')).toContainText('30\u00a0cm there, 23.5\u00a0cm here');
    await page.getByRole('button', { name: choice }).click();
    await expect(page.getByRole('dialog')).toBeHidden();
    const kept = async () =>
      (await (await page.request.get(`${app.url}/api/plans/1`)).json()).plan as Plan;
    await expect
      .poll(async () => (await kept()).places[0]!.tiers[1]!.lamps[0]!.height_mm)
      .toBe(height);
    expect((await kept()).name).toBe('Renamed elsewhere');
    // Both are in the history, whoever gives way.
    const said = await words(page, app);
    expect(said).toContain('changed elsewhere');
    expect(said.length).toBeGreaterThanOrEqual(3);
  });
}

test('a lost server is said, and the waiting edit is saved when it is back', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/?on=2027-04-09&bay=door/t2`);
  await expect(page.getByTestId('ppfd')).toBeVisible();
  await app.stop();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('alert')).toContainText('Connection lost');
  await expect(page.getByRole('alert')).toContainText('is kept here');
  await app.start();
  await expect(page.getByRole('alert')).toBeHidden({ timeout: 15_000 });
  await expect
    .poll(async () => (await (await page.request.get(`${app.url}/api/plans/1`)).json()).revision)
    .toBe(2);
});

test('a plan that cannot be fetched is said, with a way to try again', async ({ page, app }) => {
  await page.route('**/api/last-plan*', (route) => route.abort());
  await page.goto(app.url);
  await expect(page.getByRole('heading', { name: 'Your plan could not be loaded' })).toBeVisible();
  await page.unroute('**/api/last-plan*');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByTestId('date')).toBeVisible();
});

const VIEWS = [
  '/?on=2027-04-09&bay=door/t2',
  '/?on=2027-03-20&bay=door/t3&chapter=warmth',
  '/?on=2027-04-09&bay=coat/t3&chapter=space',
  '/?on=2027-05-04',
  '/sowing?on=2027-04-09&sowing=tomato',
  '/seeds?on=2027-04-09',
  '/power?on=2027-04-10',
  '/print?what=safety&on=2027-04-10',
  '/setup?on=2027-04-09',
  '/start?step=stands',
  '/start?step=crops',
  '/nowhere',
];
for (const ground of ['day', 'night'] as const)
  for (const [device, size] of [
    ['a desk', { width: 1280, height: 800 }],
    ['a phone', { width: 390, height: 844 }],
  ] as const)
    test(`axe finds nothing on any view by ${ground} on ${device}`, async ({ page, app }) => {
      test.setTimeout(400_000);
      await page.emulateMedia({ colorScheme: ground === 'night' ? 'dark' : 'light' });
      await page.setViewportSize(size);
      for (const path of VIEWS) {
        await page.goto(app.url + path);
        await page.waitForLoadState('networkidle');
        const { violations } = await new AxeBuilder({ page }).analyze();
        const said = violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target).join(' | ')}`);
        expect(said, path).toEqual([]);
      }
    });

test('Back closes a sheet, and the address tells what is picked', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-04-09`);
  const room = page.getByRole('heading', { name: 'The room' });
  await expect(room).toBeVisible();
  await page.getByRole('button', { name: /^Coat rack, Tier 2/ }).press('Enter');
  const sheet = page.getByRole('heading', { name: 'Coat rack, Tier 2' });
  await expect(sheet).toBeVisible();
  await page.getByRole('tab', { name: 'Gear' }).click();
  await expect(page).toHaveURL(/bay=coat%2Ft2.*chapter=gear/);
  await page.reload();
  await expect(sheet).toBeVisible();
  await expect(page.getByRole('tab', { name: 'Gear' })).toHaveAttribute('aria-selected', 'true');
  await page.goBack();
  await expect(room).toBeVisible();
});

test('a bad date in the address is said', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-13-40`);
  await expect(page.getByText('“2027-13-40” in the address is not a day.')).toBeVisible();
  await page.goto(`${app.url}/?on=2031-01-01`);
  await expect(page.getByText('1 January 2031 is outside this season.')).toBeVisible();
});

test('a page that is not there has a way back', async ({ page, app }) => {
  await page.goto(`${app.url}/nowhere`);
  await page.getByRole('link', { name: 'Back to the room' }).click();
  await expect(page.getByTestId('stage')).toBeVisible();
});

test('find knows gear, the crops of the library and other words for them', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/?on=2027-04-09`);
  await expect(page.getByRole('button', { name: /^Coat rack, Tier 2/ })).toBeVisible();
  const look = async (text: string) => {
    await page.keyboard.press('/');
    await page.getByRole('combobox', { name: /^Find/ }).fill(text);
  };
  await look('heat mat');
  await page
    .getByRole('option', { name: /^gear heat mat/ })
    .first()
    .click();
  await expect(page.getByRole('tab', { name: 'Gear' })).toHaveAttribute('aria-selected', 'true');
  await look('zucchini');
  await page.getByRole('option', { name: /^crop Courgette/ }).click();
  await expect(page.getByRole('dialog').last()).toContainText('Courgette');
  await page.getByLabel('Plants wanted', { exact: true }).fill('4');
  await page.getByLabel('Plants wanted', { exact: true }).press('Tab');
  await page.getByRole('button', { name: 'Sow 4 × Courgette' }).click();
  await expect(page).toHaveURL(/sowing=courgette/);
  await expect(page.getByTestId('sowing-sheet')).toBeVisible();
});

test('typing on after a dialog closes changes nothing', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-04-09&place=coat`);
  await expect(page.getByRole('heading', { name: 'Coat rack', exact: true })).toBeVisible();
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: /^Find/ }).fill('nothing of the kind');
  await page.keyboard.press('Escape');
  await page.keyboard.type('aub');
  await page.waitForTimeout(400);
  const { revision } = await (await page.request.get(`${app.url}/api/plans/1`)).json();
  expect(revision).toBe(1);
});

test('plans are named, copied for next year and set aside', async ({ page, app }) => {
  await page.goto(`${app.url}/setup`);
  await page.getByLabel('Name of the plan').fill('Our stall 2027');
  await page.getByLabel('Name of the plan').press('Tab');
  const plans = page.getByTestId('plans');
  await expect(plans).toContainText('Our stall 2027');
  await plans.getByRole('button', { name: 'Copy Our stall 2027 for next year' }).click();
  const handedOn = plans.getByTestId('handed-on');
  // What was late is told, and left as it is until somebody ticks it.
  const late = handedOn.getByRole('checkbox', { name: /Parsley .* was sown 6 days later/ });
  await expect(late).not.toBeChecked();
  const seeds = handedOn.getByRole('checkbox', { name: /^Seed: Onion/ });
  await expect(seeds).toBeChecked();
  await plans.getByRole('button', { name: 'Make next year’s plan' }).click();
  await expect(plans).toContainText('Our stall 2028');
  await expect(page.getByRole('textbox', { name: /^Last frost/ })).toHaveValue('6 May 2028');
  await plans.getByRole('button', { name: 'Set Our stall 2027 aside' }).click();
  await expect(page.getByTestId('plans-aside')).toContainText('Our stall 2027');
});

test('nothing is fetched from elsewhere', async ({ page, app }) => {
  const elsewhere: string[] = [];
  page.on('request', (request) => {
    if (!request.url().startsWith(app.url) && !request.url().startsWith('data:'))
      elsewhere.push(request.url());
  });
  await page.goto(`${app.url}/?on=2027-04-09&bay=door/t2`);
  await expect(page.getByTestId('ppfd')).toBeVisible();
  expect(elsewhere).toEqual([]);
});

test('on a phone the room stays readable and nothing runs over the edge', async ({ page, app }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${app.url}/?on=2027-04-09&bay=door/t2`);
  await expect(page.getByTestId('ppfd')).toBeVisible();
  const width = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(width).toBeLessThanOrEqual(390);
});
