// The air where a tray really is: later dates, other rooms, the months outdoors, and under covers.
import type { Page } from '@playwright/test';
import { expect, test, type App } from '../app.ts';

const plan = async (page: Page, app: App) =>
  (await (await page.request.get(`${app.url}/api/plans/1`)).json()).plan;

test('the heating goes off, and a rack stands in the attic', async ({ page, app }) => {
  await page.goto(`${app.url}/setup`);
  const rooms = page.getByRole('region', { name: 'Rooms' });
  await rooms.getByRole('button', { name: 'Other air from a later date' }).click();
  const change = rooms.getByRole('group', { name: 'Air of the room, change 1' });
  await change.getByLabel('Air by night').fill('9');
  await change.getByLabel('Air by night').press('Enter');
  await expect.poll(async () => (await plan(page, app)).site.air_from?.[0].air.night_c).toBe(9);
  // A date that is none is said to be none, and nothing is lost.
  await change.getByLabel('From').fill('soon');
  await change.getByLabel('From').press('Enter');
  await expect(change.getByRole('alert')).toContainText('not a date');

  await rooms.getByRole('button', { name: 'Another room' }).click();
  const attic = rooms.getByRole('region', { name: 'Another room' });
  await attic.getByLabel('Air by day').fill('12');
  await attic.getByLabel('Air by day').press('Enter');
  await attic.getByLabel('Room').fill('Attic');
  await attic.getByLabel('Room').press('Enter');
  await expect.poll(async () => (await plan(page, app)).site.rooms?.[0].name).toBe('Attic');

  await page.goto(`${app.url}/?on=2027-03-20`);
  await page.getByText('Door rack', { exact: true }).first().click();
  await page.getByLabel('Stands in').selectOption('Attic');
  await expect.poll(async () => (await plan(page, app)).places[0].in_room).toBe('room-1');
  await page.goto(`${app.url}/?on=2027-03-20&bay=door/t1&chapter=air`);
  await expect(page.getByTestId('air')).toContainText('12\u00a0°C');

  // Taking the room away brings the rack back.
  await page.goto(`${app.url}/setup`);
  await page
    .getByRole('region', { name: 'Attic' })
    .getByRole('button', { name: 'Remove this room' })
    .click();
  await expect.poll(async () => (await plan(page, app)).places[0].in_room).toBeUndefined();
  expect((await plan(page, app)).site.rooms).toBeUndefined();
});

test('a frame under straw is warmer by night, and months can be typed', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-04-09`);
  await page.getByText('Cold frame', { exact: true }).first().click();
  const months = page.getByTestId('cover-months');
  await expect(months).toContainText('our own estimate');
  const april = async () => {
    const cells = await months
      .getByRole('row', { name: /April/ })
      .getByRole('cell')
      .allInnerTexts();
    return cells.map((cell) => Number(cell.replace(/[^\d-]/g, '')));
  };
  const before = await april();
  expect(before[1]).toBeGreaterThanOrEqual(before[0]!);
  expect(before[4]).toBeGreaterThan(before[3]!);
  await page.getByLabel('A mat of straw or a blanket over it by night').check();
  await expect.poll(async () => (await april())[2]).toBeGreaterThan(before[2]!);
  await page.getByRole('combobox', { name: 'Cover' }).selectOption('A greenhouse');
  await page.getByLabel('Heated to').fill('10');
  await page.getByLabel('Heated to').press('Enter');
  await expect.poll(async () => (await april())[2]).toBeGreaterThanOrEqual(9);

  await page.goto(`${app.url}/setup`);
  const outdoors = page.getByRole('region', { name: 'Outdoors' });
  await outdoors.getByRole('button', { name: 'Type your own months' }).click();
  await outdoors.getByLabel('April, night').fill('-4');
  await outdoors.getByLabel('April, night').press('Enter');
  await expect.poll(async () => (await plan(page, app)).site.months?.[3].minimum_c).toBe(-4);
  await expect(outdoors).toContainText('as you typed them');
  await outdoors.getByRole('button', { name: 'Leave these months out' }).click();
  await expect(outdoors).toContainText('our own estimate');
});

test('lamps warm a room by what its walls lose', async ({ page, app }) => {
  await page.goto(`${app.url}/setup`);
  const room = page.getByRole('region', { name: 'Air of the room through the season' });
  await room.getByRole('button', { name: 'Reckon what its lamps add' }).click();
  const lamps = page.getByRole('group', { name: 'What lamps add to the room' });
  await lamps.getByLabel('A thermostat heats it').uncheck();
  const warmest = async () => {
    const cells = await lamps.getByRole('cell').allInnerTexts();
    const degrees = cells.filter((cell) => cell.includes('°')).map(Number.parseFloat);
    return Math.max(...degrees);
  };
  const typed = (await plan(page, app)).site.air.day_c;
  await expect.poll(warmest).toBeGreaterThan(typed + 2);
  const usual = await warmest();
  await lamps.getByLabel('Its walls').selectOption('Well insulated');
  await expect.poll(warmest).toBeGreaterThan(usual);
  // What was typed stays; the sheet of a shelf has the lamps in its air.
  expect((await plan(page, app)).site.air.day_c).toBe(typed);
  await page.goto(`${app.url}/?on=2027-04-20&bay=door/t1&chapter=air`);
  const air = Number.parseFloat(await page.getByTestId('air').getByText(/°C/).first().innerText());
  expect(air).toBeGreaterThan(typed);

  await page.goto(`${app.url}/setup`);
  await lamps.getByRole('button', { name: 'Take the air as typed' }).click();
  await expect(lamps).toBeHidden();
  expect((await plan(page, app)).site.envelope).toBeUndefined();
});

test('a shelf behind film gets holes, and a cabinet is aired when it is warm', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/?on=2027-03-20&bay=cabinet/t1&chapter=space`);
  await page.getByRole('button', { name: /^The whole / }).click();
  const airing = page.getByRole('region', { name: 'Airing' });
  await airing.getByLabel('Door or flap').selectOption('open when it is warm inside');
  await airing.getByLabel('Over').fill('24');
  await airing.getByLabel('Over').press('Enter');
  const cabinet = async () =>
    (await plan(page, app)).places.find((p: { id: string }) => p.id === 'cabinet');
  await expect.poll(async () => (await cabinet()).airing?.over_c).toBe(24);
  await airing.getByLabel('Door or flap').selectOption('kept shut');
  await expect.poll(async () => (await cabinet()).airing).toBeUndefined();

  await page.goto(`${app.url}/?on=2027-03-20&bay=door/t3&chapter=space`);
  for (const side of ['Left', 'Right', 'Back', 'Front']) {
    await page.getByLabel(`${side} side`).selectOption('foil film');
  }
  await page.getByRole('button', { name: 'One more vent' }).click();
  await page.getByLabel('Domes stay on over what grows').check();
  const tier = async () => (await plan(page, app)).places[0].tiers[2];
  await expect.poll(async () => (await tier()).vents?.[0].width_mm).toBe(100);
  await expect.poll(async () => (await tier()).domes_growing).toBe(true);
});
