// What was measured corrects what is reckoned, two spots are compared, and causes are told.
import { AxeBuilder } from '@axe-core/playwright';
import { expect, test } from '../app.ts';

const LEARNED = '/log?on=2027-04-09&show=learned';

test('the demo holds a weak lamp, a mat, a packet and a slow corner, all found', async ({
  page,
  app,
}) => {
  await page.goto(app.url + LEARNED);
  const found = page.getByTestId('corrections');
  for (const id of ['lamps/coat/t1', 'mat/door/t3/m1', 'packet/celery-24', 'air_night_k/coat'])
    await expect(found.locator(`[data-lesson="${id}"]`)).toBeVisible();
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
});

test('a correction is looked at, accepted as one step, seen under why, and undone', async ({
  page,
  app,
}) => {
  const plan = async () =>
    JSON.stringify((await (await page.request.get(`${app.url}/api/plans/1`)).json()).plan);
  const before = await plan();
  await page.goto(app.url + LEARNED);
  const lamps = page.locator('[data-lesson="lamps/coat/t1"]');
  await expect(lamps).toContainText('of the light on their label');
  // The wild reading is named and left out, and can be put in.
  await expect(lamps).toContainText('One reading is left out');
  await lamps.getByRole('button', { name: 'Look at the correction' }).click();
  await expect(lamps).toContainText('it stands out from the others');
  await lamps.getByRole('button', { name: 'Put it in' }).click();
  await expect(lamps).toContainText('counts all the same');
  await lamps.getByRole('button', { name: 'Leave it out' }).click();
  const effect = lamps.getByTestId('effect');
  await expect(effect).toContainText('What it changes');
  expect(await plan()).toBe(before);
  await effect.getByRole('button', { name: /^Take the lamps at 7\d/ }).click();
  // Accepted, it is no longer to be corrected.
  await expect(
    page.getByTestId('corrections').locator('[data-lesson="lamps/coat/t1"]'),
  ).toHaveCount(0);
  await expect(lamps).toContainText('as reckoned');
  // Undone from any view.
  await page.goto(`${app.url}/?on=2027-04-09&bay=coat/t1`);
  await expect(page.getByTestId('sheet').or(page.locator('main'))).toContainText('Coat rack');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(plan).toBe(before);
});

test('two spots are compared in words, with the test named', async ({ page, app }) => {
  await page.goto(`${app.url}/log?on=2027-04-09&show=compare&a=tray:cf1&b=tray:cf2`);
  const found = page.getByTestId('comparison');
  await expect(found).toContainText(/Cf1 stands \d+\s*% lower than Cf2 at the same age/);
  await expect(found).toContainText('Probably');
  await expect(found).toContainText("Welch's t test");
  await expect(found).toContainText('clearly apart');
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  // Turned round by hand it reads the other way round.
  await page.getByLabel('This', { exact: true }).selectOption('tray:cf2');
  await page.getByLabel('Against this').selectOption('tray:cf1');
  await page.getByRole('button', { name: 'Compare them' }).click();
  await expect(found).toContainText(/Cf2 stands \d+\s*% taller than Cf1/);
});

test('what is seen in a tray is told by its own figures, on the phone', async ({ page, app }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${app.url}/log?on=2027-04-09&tray=mx1`);
  await page.getByRole('button', { name: 'Something wrong with it?' }).click();
  await page.getByRole('button', { name: 'One side ahead' }).click();
  const causes = page.getByTestId('causes');
  await expect(causes.locator('li').first()).toContainText('Now:');
  await expect(causes).toContainText('Kinds of different pace in one tray');
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
});

test('a reading says what it means while it is typed', async ({ page, app }) => {
  await page.goto(`${app.url}/log?on=2027-04-09&tray=cf1`);
  await page.getByRole('button', { name: 'Note, measure or photograph' }).click();
  const form = page.locator('form').filter({ hasText: 'Note or measure' });
  await form.getByLabel('What', { exact: true }).selectOption('measured');
  await form.getByLabel('Instrument').selectOption('height_mm');
  await form.getByLabel('It shows').fill('6');
  await form.getByLabel('It shows').press('Tab');
  await expect(page.getByTestId('meaning')).toContainText(
    '8.5 cm is reckoned here, and you measured 6 cm',
  );
});

test('nothing measured is said to a newcomer', async ({ page, app }) => {
  await page.request.post(`${app.url}/api/plans`, {
    data: {
      plan: await (await page.request.get(`${app.url}/api/blank-plan`)).json(),
      word: 'began',
    },
  });
  await page.goto(`${app.url}/log?show=learned`);
  await expect(page.getByText('Nothing has been measured or counted yet')).toBeVisible();
});
