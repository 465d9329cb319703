// How plants grow on the screens: what varieties differ in, crops of one's own, seed that is poor or dear.
import type { Page } from '@playwright/test';
import { expect, test, type App } from '../app.ts';

interface Crop {
  name: string;
  habit: string;
  germinates_in: string;
  emergence: unknown;
}

interface Plan {
  sowings: { id: string; differs?: unknown }[];
  crops?: Crop[];
}

async function plan(page: Page, app: App): Promise<Plan> {
  const answer = await page.request.get(`${app.url}/api/plans/1`);
  return ((await answer.json()) as { plan: Plan }).plan;
}

test('a dwarf variety differs from its kind, and is as its kind again', async ({ page, app }) => {
  await page.goto(`${app.url}/sowing`);
  await page.getByText('Saltmarsh Plum').first().click();
  const variety = page.getByTestId('variety');
  await variety.locator('summary').click();
  await expect(variety).toContainText('Left empty, a figure is that of Tomato.');
  const height = variety.getByLabel('Height at planting out');
  await height.fill('9');
  await height.press('Enter');
  await variety.getByLabel('Vigour').selectOption('slow');
  await expect(variety).toContainText('in 2 ways');
  await expect
    .poll(async () => {
      const sowings = (await plan(page, app)).sowings;
      return sowings.find((sowing) => sowing.id === 'tomato-plum')?.differs;
    })
    .toEqual({ height_out_mm: 90, vigour: 'slow' });
  await height.fill('900');
  await height.press('Enter');
  await expect(page.getByRole('alert').first()).toContainText('200');
  await height.press('Escape');
  await variety.getByRole('button', { name: 'As its kind in everything' }).click();
  await expect(variety).not.toContainText('ways');
});

test('a sowing says what starting indoors gains', async ({ page, app }) => {
  await page.goto(`${app.url}/sowing`);
  await page.getByText('Saltmarsh Plum').first().click();
  await expect(page.getByTestId('bed')).toContainText(
    /gains about \d+\s+weeks: sown in the bed about/,
  );
});

test('either trade finds its crops, and a kind of one\u2019s own has every figure', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/seeds`);
  const search = page.getByRole('searchbox').first();
  for (const [called, name] of [
    ['eggplant', 'Aubergine'],
    ['zucchini', 'Courgette'],
    ['arugula', 'Rocket'],
  ]) {
    await search.fill(called!);
    await expect(page.getByTestId('crops').getByRole('button').first()).toContainText(name!);
  }
  const crops = page.getByTestId('crops');
  await search.fill('arugula');
  await crops.getByRole('button').first().click();
  await crops.getByRole('button', { name: 'Copy as my own crop' }).click();
  await search.fill('own kind');
  await crops.getByLabel('Name').fill('Wall rocket');
  await crops.getByLabel('Name').press('Enter');
  await search.fill('wall');
  await crops.getByLabel('Grows as').selectOption('bushy');
  await crops.getByLabel('Germinates in').selectOption('dark');
  await crops.getByLabel('Days at best').fill('9');
  await crops.getByLabel('Days at best').press('Enter');
  await expect
    .poll(async () => {
      const own = ((await plan(page, app)).crops ?? [])[0];
      return [own?.name, own?.habit, own?.germinates_in, own?.emergence];
    })
    .toEqual([
      'Wall rocket',
      'bushy',
      'dark',
      { base_c: 4, best_c: 22, upper_c: 32, days_at_best: 9 },
    ]);
});

test('one of a hundred leads to an open tray, and dear seed to one a cell', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/seeds`);
  const card = page.getByRole('region', { name: /How many/ });
  await card.getByLabel('Test: came up').fill('1');
  await card.getByLabel('Test: came up').press('Enter');
  await card.getByLabel('out of').fill('100');
  await card.getByLabel('out of').press('Enter');
  await expect(page.getByTestId('how-many')).toContainText('thickly in an open tray');
  await card.getByLabel('Test: came up').fill('90');
  await card.getByLabel('Test: came up').press('Enter');
  await card.getByLabel(/Few or dear seeds/).check();
  await expect(page.getByTestId('how-many')).toContainText('1 per cell');
});
