// Branches of the history, deleted plans, and what is said when nothing can be kept.
import { renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { App, expect, test } from '../app.ts';

test('what an edit left behind is in the history and can be brought back', async ({
  page,
  app,
}) => {
  const view = await (await page.request.get(`${app.url}/api/plans/1`)).json();
  const save = async (base: number, name: string) => {
    const data = { base_revision: base, word: `called it ${name}`, plan: { ...view.plan, name } };
    await page.request.post(`${app.url}/api/plans/1/revisions`, { data });
  };
  await save(1, 'Left behind');
  await page.request.post(`${app.url}/api/plans/1/step`, {
    data: { base_revision: 2, step: 'undo' },
  });
  await save(1, 'Kept');
  await page.goto(`${app.url}/setup?on=2027-04-09`);
  const history = page.getByTestId('history');
  const aside = history.locator('li', { hasText: 'called it Left behind' });
  await expect(aside).toContainText('beside the line, after “began with the Kettle Fen demo”');
  await aside.getByRole('button', { name: 'Go here' }).click();
  await expect(aside).toContainText('here');
  await expect(history.locator('li', { hasText: 'called it Kept' })).toContainText(
    'beside the line',
  );
});

test('a plan is deleted, missed and brought back', async ({ page, app }) => {
  await page.goto(`${app.url}/setup?on=2027-04-09`);
  const plans = page.getByTestId('plans');
  await plans.getByRole('button', { name: /^Delete Kettle Fen/ }).click();
  await plans.getByRole('button', { name: 'Keep' }).click();
  await plans.getByRole('button', { name: /^Delete Kettle Fen/ }).click();
  await plans.getByRole('button', { name: /^Delete Kettle Fen/ }).click();
  await expect(page.getByRole('heading', { name: 'Where do you grow?' })).toBeVisible();
  await page.getByRole('button', { name: 'The demo' }).click();
  await expect(page.getByTestId('stage')).toBeVisible();
  await page.goto(`${app.url}/setup`);
  await expect(page.getByTestId('deleted-plans')).toContainText('kept until');
  await page.getByRole('button', { name: 'Bring back' }).click();
  await expect(plans.getByRole('button', { name: 'Open' })).toHaveCount(1);
});

test('a vanished folder is said, and the change is saved once it is back', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/?on=2027-04-09&bay=door/t2`);
  await page.getByTestId('ppfd').waitFor();
  const [here, gone] = [join(app.data, 'plans.db'), join(app.data, 'elsewhere.db')];
  renameSync(here, gone);
  await page.keyboard.press('ArrowUp');
  await expect(page.getByTestId('trouble')).toContainText('Nothing can be saved just now');
  await expect(page.getByTestId('trouble')).toContainText('is kept here');
  renameSync(gone, here);
  await expect(page.getByTestId('trouble')).toHaveCount(0, { timeout: 20_000 });
  await expect
    .poll(async () => (await (await page.request.get(`${app.url}/api/plans/1`)).json()).revision)
    .toBe(2);
});

test('a damaged database is put aside and said', async ({ page }) => {
  const app = new App();
  writeFileSync(join(app.data, 'plans.db'), 'no database but a letter');
  await app.start();
  await page.goto(app.url);
  await expect(page.getByTestId('set-aside')).toContainText('plans.db.damaged-');
  await expect(page.getByTestId('date')).toBeVisible();
  await app.stop();
  app.remove();
});

test('a shelf with two findings of one kind opens, and long lists are folded', async ({
  page,
  app,
}) => {
  const { plan } = await (await page.request.get(`${app.url}/api/plans/1`)).json();
  // Trays in a heap on one shelf: many findings of one kind.
  const tray = plan.trays.find((t: { stands: { bay: { place: string; tier: string } }[] }) =>
    t.stands.some((stand) => stand.bay.place === 'door' && stand.bay.tier === 't2'),
  );
  for (let i = 0; i < 5; i++) plan.trays.push({ ...tray, id: `heap-${i}`, name: `Heap ${i}` });
  await page.request.post(`${app.url}/api/plans`, { data: { plan, word: 'heaped' } });
  await page.goto(`${app.url}/?on=2027-04-09&bay=door/t2`);
  const sheet = page.getByRole('complementary', { name: 'Panel' });
  await expect(sheet.getByRole('heading', { name: 'Door rack, Tier 2' })).toBeVisible();
  await expect(sheet.getByText('Something went wrong')).toHaveCount(0);
  await sheet.getByRole('button', { name: /more to do here/ }).click();
  const more = sheet.getByRole('button', { name: /more like this/ }).first();
  await more.click();
  await expect(sheet.getByRole('heading', { name: /Find another spot/ })).not.toHaveCount(0);
  await page.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(sheet.getByRole('button', { name: /more like this/ }).first()).toBeVisible();
});
