// Building the room: by mouse, by keyboard and by touch, and all of it taken back.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { AxeBuilder } from '@axe-core/playwright';
import { expect, test, type App } from '../app.ts';

const DAY = '2027-04-09';

async function open(page: Page, app: App, query = '') {
  await page.goto(`${app.url}/?on=${DAY}${query}`);
  await expect(page.getByTestId('date')).toContainText('April');
  await expect(page.getByRole('group', { name: 'The room from the front' })).toBeVisible();
}

async function view(page: Page, app: App) {
  return (await page.request.get(`${app.url}/api/plans/1`)).json();
}

const places = async (page: Page, app: App) => (await view(page, app)).plan.places;

/** Takes back every edit and compares the document with what it was, byte for byte. */
async function undoneExactly(page: Page, app: App, before: string) {
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  while ((await view(page, app)).undo) {
    const { revision } = await view(page, app);
    await page.keyboard.press('u');
    await expect.poll(async () => (await view(page, app)).revision).not.toBe(revision);
  }
  const after = await page.request.get(`${app.url}/api/plans/1/file`);
  expect(await after.text()).toBe(before);
}

const file = async (page: Page, app: App) =>
  (await page.request.get(`${app.url}/api/plans/1/file`)).text();

const deck = (page: Page, name: string) =>
  page.getByRole('slider', { name: `Height of ${name} above the floor` });

test('a room is built with the mouse and taken back exactly', async ({ page, app }) => {
  await open(page, app, '&build');
  const before = await file(page, app);
  const shelf = page.getByRole('region', { name: 'Shelf of kinds' });

  // A deck follows the hand in steps of the pitch, 20 mm on the coat rack.
  const handle = (await deck(page, 'Coat rack, Tier 3').boundingBox())!;
  const [x, y] = [handle.x + handle.width / 2, handle.y + handle.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y + 18, { steps: 5 });
  await page.mouse.up();
  await expect
    .poll(async () => (await places(page, app))[1].tiers[2].deck_height_mm)
    .toBeLessThan(1060);
  expect((await places(page, app))[1].tiers[2].deck_height_mm % 20).toBe(0);

  // A fan is dragged from the shelf into the empty bay of the wire rack.
  await shelf.getByRole('button', { name: 'Fans' }).click();
  const fan = (await shelf.getByRole('button', { name: /^small case fan/ }).boundingBox())!;
  const bay = (await page.getByRole('button', { name: /^Door rack, Tier 4:/ }).boundingBox())!;
  await page.mouse.move(fan.x + 30, fan.y + 12);
  await page.mouse.down();
  await page.mouse.move(bay.x + bay.width / 2, bay.y + 12, { steps: 8 });
  await page.mouse.up();
  await expect.poll(async () => (await places(page, app))[0].tiers[3].fans.length).toBe(1);
  await expect(page.getByRole('heading', { name: 'Door rack, Tier 4' })).toBeVisible();

  // A place is added with a click, and a tier of it again.
  await shelf.getByRole('button', { name: 'Places' }).click();
  await shelf.getByRole('button', { name: /^Wall shelf/ }).click();
  await expect.poll(async () => (await places(page, app)).length).toBe(7);
  await expect(page.getByRole('heading', { name: 'Wall shelf', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Add a shelf' }).click();
  await expect.poll(async () => (await places(page, app))[6].tiers.length).toBe(2);

  // Two things picked together go together.
  await page.getByRole('button', { name: /^Wall shelf, wall shelf/ }).click();
  await page
    .getByRole('button', { name: /^Cold frame, cold frame/ })
    .click({ modifiers: ['Shift'] });
  await expect(page.getByTestId('picked').locator('li')).toHaveCount(2);
  await page.getByRole('button', { name: /^Remove them/ }).click();
  await expect.poll(async () => (await places(page, app)).length).toBe(5);
  await undoneExactly(page, app, before);
});

test('a room is built with the keys and taken back exactly', async ({ page, app }) => {
  await open(page, app);
  const before = await file(page, app);
  await page.keyboard.press('b');
  await deck(page, 'Coat rack, Tier 2').focus();
  await page.keyboard.press('ArrowDown');
  await expect.poll(async () => (await places(page, app))[1].tiers[1].deck_height_mm).toBe(620);
  await page.getByRole('slider', { name: 'Width of Cold frame' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await places(page, app))[5].width_mm).toBe(2005);
  await page.getByRole('button', { name: /^Move Coat rack along/ }).focus();
  await page.keyboard.press('ArrowLeft');
  await expect.poll(async () => (await places(page, app))[0].id).toBe('coat');
  await page.getByRole('button', { name: /^Coat rack, rack/ }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Coat rack', exact: true })).toBeVisible();
  await page.keyboard.press('a');
  await expect.poll(async () => (await places(page, app))[1].name).toBe('Coat rack 2');
  await page.keyboard.press('Delete');
  await expect.poll(async () => (await places(page, app)).length).toBe(6);
  await page.keyboard.press('Escape');
  await undoneExactly(page, app, before);
});

test('sizes, ratings and fittings are typed in place', async ({ page, app }) => {
  await open(page, app, '&place=coat');
  const before = await file(page, app);
  const sheet = page.getByRole('complementary', { name: 'Panel' });
  await sheet.getByLabel('Depth').fill('65');
  await sheet.getByLabel('Depth').press('Enter');
  await expect.poll(async () => (await places(page, app))[1].depth_mm).toBe(650);
  await sheet.getByLabel('Safe load in all').fill('');
  await sheet.getByLabel('Safe load in all').press('Enter');
  await expect.poll(async () => (await places(page, app))[1].rating_kg).toBeUndefined();
  await sheet.getByLabel('Made of').selectOption('Sealed chipboard');
  await expect
    .poll(async () => (await places(page, app))[1].deck.material)
    .toBe('sealed_chipboard');
  // Fixed to the wall, the warning goes.
  await expect(sheet.getByText('Urgent')).toBeVisible();
  await sheet.getByLabel('Fixed to the wall').check();
  await expect(sheet.getByText('Urgent')).toBeHidden();
  // What cannot be is said with the field and the range, and nothing of it stays.
  await sheet.getByLabel('Width').fill('900');
  await sheet.getByLabel('Width').press('Enter');
  await expect(page.getByRole('status').getByText(/^Width: /)).toBeVisible();
  await expect(sheet.getByLabel('Width')).toHaveValue('122');
  await undoneExactly(page, app, before);
});

test('a deck tells what fits, and what would stick out', async ({ page, app }) => {
  await open(page, app, '&build');
  const shelf = page.getByRole('region', { name: 'Shelf of kinds' });
  await shelf.getByRole('button', { name: /^Narrow wire rack/ }).click();
  await expect(page.getByRole('heading', { name: 'Narrow wire rack', exact: true })).toBeVisible();
  await page.getByRole('button', { name: /^Narrow wire rack, Tier 2/ }).click();
  await page.getByRole('tab', { name: 'Space' }).click();
  const row = page.getByTestId('fits').getByRole('row', { name: /72 cells/ });
  await expect(row).toContainText(/2\s*0 \(4\*\)\s*2\s*2/);
  await expect(page.getByTestId('overhang').filter({ hasText: '72 cells' })).toContainText(
    '4, sticking out by 8.3\u00a0cm',
  );
});

test('on inch shelves crosswise trays are said to stick out by about three inches', async ({
  page,
  app,
}) => {
  const plan = JSON.parse(
    readFileSync(join(import.meta.dirname, '../../demo/alder-bluff.json'), 'utf8'),
  );
  await page.request.post(`${app.url}/api/plans`, { data: { plan, word: 'began' } });
  await page.goto(`${app.url}/?on=2027-04-20&bay=wire/t1&chapter=space`);
  await expect(page.getByTestId('overhang')).toContainText('4, sticking out by 3.25\u00a0in');
  await expect(page.getByTestId('space')).toContainText('lb of 200');
  await page.getByRole('button', { name: /more to do here/ }).click();
  await expect(page.getByText(/^To1, To2, To3, To4 are 3\.25\sin deeper than/)).toBeVisible();
});

test('a container of one’s own is measured', async ({ page, app }) => {
  await open(page, app, '&build');
  const shelf = page.getByRole('region', { name: 'Shelf of kinds' });
  await shelf.getByRole('button', { name: 'Containers' }).click();
  await shelf.getByRole('button', { name: /^communal clear box/ }).click();
  await page.locator('summary', { hasText: 'communal clear box' }).click();
  await page.getByLabel('Length').fill('30');
  await page.getByLabel('Length').press('Enter');
  const boxes = async () =>
    (await view(page, app)).plan.tray_formats.filter((f: { id: string }) => f.id === 'clear-box');
  await expect.poll(async () => (await boxes())[0]?.length_mm).toBe(300);
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect.poll(async () => (await boxes()).length).toBe(0);
});

test('the view pans and zooms, and a drag picks nothing', async ({ page, app }) => {
  await open(page, app);
  const room = page.getByRole('group', { name: 'The room from the front' });
  const stage = (await page.getByTestId('stage').boundingBox())!;
  const box = async () => (await room.boundingBox())!;
  // The whole room is the first view: closer, there is more than fits.
  expect((await box()).width).toBeLessThan(stage.width);
  for (let i = 0; i < 4; i++) await page.getByRole('button', { name: 'Zoom in' }).click();
  await expect.poll(async () => (await box()).width).toBeGreaterThan(1.5 * stage.width);
  const first = await box();
  await page.mouse.move(stage.x + 300, stage.y + 300);
  await page.mouse.down();
  await page.mouse.move(stage.x + 100, stage.y + 290, { steps: 5 });
  await page.mouse.up();
  expect((await box()).x).toBeCloseTo(first.x - 200, 0);
  await expect(page.getByRole('heading', { name: 'The room' })).toBeVisible();
  await page.mouse.wheel(0, -300);
  await expect.poll(async () => (await box()).width).toBeGreaterThan(first.width * 1.3);
  await page.keyboard.press('0');
  await expect.poll(async () => (await box()).width).toBeLessThan(stage.width);
  await page.keyboard.press('0');
  await expect.poll(async () => (await box()).width).toBeGreaterThan(stage.width);
  const before = await box();
  await page.keyboard.press('Shift+ArrowRight');
  await expect.poll(async () => (await box()).x).toBeLessThan(before.x);
});

test('a place moves on the floor by hand and by keys', async ({ page, app }) => {
  await open(page, app);
  const cabinet = page.getByRole('button', { name: /^Proving cabinet on the floor/ });
  const spot = async () => (await places(page, app))[2].spot;
  await cabinet.scrollIntoViewIfNeeded();
  const box = (await cabinet.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 - 30, box.y + box.height / 2 + 20, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await spot()).x_mm).toBeLessThan(2640);
  const { y_mm } = await spot();
  await cabinet.focus();
  await page.keyboard.press('ArrowUp');
  await expect.poll(async () => (await spot()).y_mm).toBe(y_mm + 50);
});

test('a tray is moved to another bay, where it finds a free spot', async ({ page, app }) => {
  await open(page, app, '&bay=coat/t3&chapter=trays');
  await page.getByRole('button', { name: 'Move Cf1 to another shelf' }).click();
  await page.getByLabel('Stand Cf1 in').selectOption('cabinet/t1');
  await page.getByRole('button', { name: 'Move there' }).click();
  await expect
    .poll(async () => {
      const trays: { id: string; stands: { stage: string; bay: { place: string } }[] }[] = (
        await view(page, app)
      ).plan.trays;
      const stands = trays.find((tray) => tray.id === 'cf1')!.stands;
      return stands.find((stand) => stand.stage === 'grow')?.bay.place;
    })
    .toBe('cabinet');
});

for (const ground of ['day', 'night'] as const) {
  test(`axe finds nothing while building by ${ground}`, async ({ page, app }) => {
    await page.emulateMedia({ colorScheme: ground === 'night' ? 'dark' : 'light' });
    for (const query of ['&build&place=coat', '&build&place=cabinet', '&bay=coat/t1', '']) {
      await open(page, app, query);
      await page.waitForLoadState('networkidle');
      const { violations } = await new AxeBuilder({ page }).analyze();
      expect(violations.map((v) => `${query} ${v.id}: ${v.nodes[0]?.html}`)).toEqual([]);
    }
  });
}

test.describe('with a thumb on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('decks, kinds and picks follow the finger, and all is taken back', async ({ page, app }) => {
    await open(page, app);
    const before = await file(page, app);
    await page.getByRole('button', { name: /^Build/ }).tap();
    const client = await page.context().newCDPSession(page);
    const touch = (type: string, points: { x: number; y: number }[]) =>
      client.send('Input.dispatchTouchEvent', {
        type: type as 'touchStart',
        touchPoints: points,
      });
    const handle = (await deck(page, 'Door rack, Tier 4').boundingBox())!;
    const [x, y] = [handle.x + handle.width / 2, handle.y + handle.height / 2];
    await touch('touchStart', [{ x, y }]);
    for (const by of [2, 5, 8]) await touch('touchMove', [{ x, y: y + by }]);
    await touch('touchEnd', []);
    await expect
      .poll(async () => (await places(page, app))[0].tiers[3].deck_height_mm)
      .not.toBe(1330);

    const shelf = page.getByRole('region', { name: 'Shelf of kinds' });
    await shelf.getByRole('button', { name: /^Narrow wire rack/ }).tap();
    await expect.poll(async () => (await places(page, app)).length).toBe(7);
    await page.getByRole('button', { name: 'Select several' }).tap();
    await page.getByRole('button', { name: /^Narrow wire rack, Tier 2/ }).tap();
    await expect(page.getByTestId('picked').locator('li')).toHaveCount(2);
    await page.getByRole('button', { name: /^Remove them/ }).tap();
    await expect.poll(async () => (await places(page, app)).length).toBe(6);

    // Two fingers apart: nearer.
    const room = page.getByRole('group', { name: 'The room from the front' });
    await page.getByTestId('stage').evaluate((element) => element.scrollIntoView());
    const stage = (await page.getByTestId('stage').boundingBox())!;
    const width = (await room.boundingBox())!.width;
    // Below the floor, where nothing is to be grabbed.
    const middle = { x: stage.x + 200, y: stage.y + stage.height - 12 };
    const fingers = (by: number) => [
      { x: middle.x - by, y: middle.y, id: 1 },
      { x: middle.x + by, y: middle.y, id: 2 },
    ];
    await touch('touchStart', fingers(20));
    for (const by of [30, 45, 60]) await touch('touchMove', fingers(by));
    await touch('touchEnd', []);
    await expect.poll(async () => (await room.boundingBox())!.width).toBeGreaterThan(width * 1.8);
    for (let left = 3; left > 0; left--) {
      const { revision } = await view(page, app);
      await page.getByRole('button', { name: /^Undo/ }).tap();
      await expect.poll(async () => (await view(page, app)).revision).not.toBe(revision);
    }
    expect(await file(page, app)).toBe(before);
  });
});
