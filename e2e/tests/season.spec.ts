// The ribbon, the dates that follow from the last frost, and the shell around them.
import { join } from 'node:path';
import { AxeBuilder } from '@axe-core/playwright';
import { App, expect, test } from '../app.ts';

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
  const tomato = page.getByTestId('dates-tomato');
  await expect(tomato).toContainText('31 Mar');
  await expect(tomato).toContainText('8 Apr');
  await expect(tomato).toContainText('20 May');
  await page.getByLabel('Last frost, even odds').fill('2027-05-16');
  await expect(tomato).toContainText('10 Apr');
  await expect(tomato).toContainText('18 Apr');
  await expect(tomato).toContainText('30 May');
  await expect(page.getByTestId('history')).toContainText('set the last frost to Sun 16 May');
  await page.reload();
  await expect(tomato).toContainText('10 Apr');
  await page.keyboard.press('u');
  await expect(tomato).toContainText('31 Mar');
  await page.getByRole('button', { name: 'Go here' }).click();
  await expect(tomato).toContainText('10 Apr');
});

test('the last frost is dragged on the ribbon', async ({ page, app }) => {
  await page.goto(`${app.url}/setup?on=2027-03-01`);
  const frost = page.getByRole('slider', { name: 'Last frost' });
  const tomato = page.getByTestId('dates-tomato');
  await expect(tomato).toContainText('31 Mar');
  const box = (await frost.boundingBox())!;
  await page.mouse.move(box.x + 12, box.y + 30);
  await page.mouse.down();
  await page.mouse.move(box.x + 60, box.y + 30, { steps: 4 });
  await expect(tomato).not.toContainText('31 Mar');
  await page.mouse.up();
  await expect(page.getByTestId('history')).toContainText('set the last frost');
  await frost.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByTestId('history').locator('li')).toHaveCount(3);
});

test('find, keys and closing work without a mouse', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-03-01`);
  // Dates to go to are found once the season is reckoned.
  await expect(page.getByRole('button', { name: /^Coat rack, tier 2/ })).toBeVisible();
  await page.keyboard.press('/');
  await page.getByRole('combobox').fill('Au1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Coat rack, tier 2' })).toBeVisible();
  await expect(page.getByTestId('date')).toContainText('April');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'The room' })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('one week on');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.getByRole('button', { name: /^Door rack, tier 2/ }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Door rack, tier 2' })).toBeVisible();
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
  await expect(page.getByRole('heading', { name: 'Alder Bluff' })).toBeVisible();
  await expect(page.getByLabel('Air by day')).toHaveValue('68');
  await page.goto(`${app.url}/?on=2027-04-20&bay=wire/t1`);
  await expect(page.getByTestId('gap')).toContainText('in');
  await expect(page.getByTestId('power')).toContainText('$');
});

test('an edit made elsewhere is a choice, and nothing is lost', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-04-09&bay=door/t2`);
  await expect(page.getByTestId('ppfd')).toBeVisible();
  const { plan } = await (await page.request.get(`${app.url}/api/plans/1`)).json();
  plan.name = 'changed elsewhere';
  const theirs = { base_revision: 1, word: 'renamed elsewhere', plan };
  await page.request.post(`${app.url}/api/plans/1/revisions`, { data: theirs });
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('dialog')).toContainText('changed elsewhere');
  await page.getByRole('button', { name: 'Save mine on top' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  const words = async () =>
    (await (await page.request.get(`${app.url}/api/plans/1/revisions`)).json()).map(
      (r: { word: string }) => r.word,
    );
  await expect.poll(async () => (await words()).length).toBe(3);
  expect((await words())[1]).toBe('renamed elsewhere');
});

test('a lost server is said, and the waiting edit is saved when it is back', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/?on=2027-04-09&bay=door/t2`);
  await expect(page.getByTestId('ppfd')).toBeVisible();
  await app.stop();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('alert')).toContainText('No longer connected');
  await expect(page.getByRole('alert')).toContainText('waits here');
  await app.start();
  await expect(page.getByRole('alert')).toBeHidden({ timeout: 15_000 });
  await expect
    .poll(async () => (await (await page.request.get(`${app.url}/api/plans/1`)).json()).revision)
    .toBe(2);
});

test('without a plan one can begin with the demo', async ({ page }) => {
  const app = await new App(undefined, false).start();
  await page.goto(app.url);
  await expect(page.getByRole('heading', { name: 'No plan yet' })).toBeVisible();
  await page.getByRole('button', { name: 'Begin with the demo' }).click();
  // Outside the season it opens on the day the room is fullest.
  await expect(page.getByTestId('trays')).toHaveText(/^2\d of 45 trays$/);
  await app.stop();
  app.remove();
});

test('a plan that cannot be fetched is said, with a way to try again', async ({ page, app }) => {
  await page.route('**/api/last-plan*', (route) => route.abort());
  await page.goto(app.url);
  await expect(page.getByRole('heading', { name: 'The plan could not be fetched' })).toBeVisible();
  await page.unroute('**/api/last-plan*');
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByTestId('date')).toBeVisible();
});

for (const ground of ['day', 'night'] as const) {
  for (const path of ['/?on=2027-04-09&bay=door/t2', '/?on=2027-05-04', '/setup?on=2027-04-09']) {
    test(`axe finds nothing on ${path} by ${ground}`, async ({ page, app }) => {
      await page.emulateMedia({ colorScheme: ground === 'night' ? 'dark' : 'light' });
      await page.goto(app.url + path);
      await expect(page.getByTestId('date')).toBeVisible();
      await page.waitForLoadState('networkidle');
      const { violations } = await new AxeBuilder({ page }).analyze();
      expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target).join(' | ')}`)).toEqual(
        [],
      );
    });
  }
}

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
