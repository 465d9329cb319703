// Every tray placed at once: how far it is, a way to stop, one revision that is undone as one.
import type { Page } from '@playwright/test';
import { expect, test, type App } from '../app.ts';

interface Tray {
  id: string;
  stands: { stage: string; bay: { place: string; tier: string } }[];
}

async function trays(page: Page, app: App): Promise<Tray[]> {
  const answer = await page.request.get(`${app.url}/api/plans/1`);
  return ((await answer.json()) as { plan: { trays: Tray[] } }).plan.trays;
}

test('all trays are placed afresh, told on the way, and undone as one', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-04-09`);
  const before = await trays(page, app);
  const place = page.getByTestId('place-all');
  await place.getByRole('button', { name: 'Place all trays afresh' }).click();
  await expect(place.getByRole('progressbar')).toBeVisible();
  await place.getByRole('button', { name: 'Stop and use this' }).click();
  // The demo has no room for one of its tall tomatoes.
  await expect(place.getByRole('status')).toContainText('placed 38 trays; 1 found no spot', {
    timeout: 30_000,
  });
  const after = await trays(page, app);
  expect(after.filter((tray) => tray.stands.length === 0)).toHaveLength(1);
  expect(after).not.toEqual(before);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => trays(page, app)).toEqual(before);
});

test('what stands nowhere finds spots, and the others keep theirs', async ({ page, app }) => {
  const answer = await page.request.get(`${app.url}/api/plans/1`);
  const view = (await answer.json()) as { revision: number; plan: { trays: Tray[] } };
  const bare = ['ca1', 'ca2', 'le1'];
  for (const tray of view.plan.trays) if (bare.includes(tray.id)) tray.stands = [];
  const saved = await page.request.post(`${app.url}/api/plans/1/revisions`, {
    data: { base_revision: view.revision, plan: view.plan, word: 'took three trays off' },
  });
  expect(saved.ok(), await saved.text()).toBe(true);
  await page.goto(`${app.url}/?on=2027-03-20`);
  await page.getByRole('button', { name: 'Find spots for all' }).click();
  await expect(page.getByTestId('unplaced')).toHaveCount(0, { timeout: 30_000 });
  const after = await trays(page, app);
  for (const tray of after) {
    const own = view.plan.trays.find((other) => other.id === tray.id)!;
    const grows = (one: Tray) => one.stands.find((stand) => stand.stage === 'grow');
    if (!bare.includes(tray.id)) expect(grows(tray), tray.id).toEqual(grows(own));
    else expect(tray.stands.length).toBeGreaterThan(0);
  }
});
