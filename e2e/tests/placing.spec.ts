// Where trays stand: from the shelf into a bay, moved from a date on, turned and swapped; by mouse,
// by finger and by keys.
import type { Page } from '@playwright/test';
import { expect, test, type App } from '../app.ts';

interface Stand {
  stage: string;
  from?: string;
  bay: { place: string; tier: string };
  x_mm: number;
  y_mm: number;
  along: string;
}

const plan = async (page: Page, app: App) =>
  (await (await page.request.get(`${app.url}/api/plans/1`)).json()).plan;
const stands = async (page: Page, app: App, id: string): Promise<Stand[]> =>
  (await plan(page, app)).trays.find((tray: { id: string }) => tray.id === id).stands;
/** The bay that it stands in first, as `place/tier`. */
const bayOf = async (page: Page, app: App, id: string) => {
  const [first] = await stands(page, app, id);
  return first ? `${first.bay.place}/${first.bay.tier}` : '';
};

/** Takes the trays of a sowing off their shelves; they stay in the plan. */
async function takeDown(page: Page, app: App, ids: string[]) {
  const kept = await (await page.request.get(`${app.url}/api/plans/1`)).json();
  for (const tray of kept.plan.trays) if (ids.includes(tray.id)) tray.stands = [];
  const answer = await page.request.post(`${app.url}/api/plans/1/revisions`, {
    data: { plan: kept.plan, base_revision: kept.revision, word: 'took them down' },
  });
  expect(answer.ok(), await answer.text()).toBe(true);
}

test('trays that stand nowhere lie on a shelf and are stood in bays by mouse and by keys', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/?on=2027-04-09`);
  await expect(page.getByTestId('trays')).toHaveText('18 of 45 trays');
  await expect(page.getByTestId('tray-shelf')).toHaveCount(0);
  await takeDown(page, app, ['tc1', 'tc2', 'cf1']);
  await page.reload();
  await expect(page.getByTestId('unplaced')).toHaveText('3 trays stand nowhere on this date');
  await expect(page.getByTestId('trays')).toHaveText('15 of 45 trays, 3 nowhere');
  // By mouse, into the bay that it is let go over.
  const shelf = page.getByTestId('tray-shelf');
  const from = (await shelf.getByRole('button', { name: /^Tc1/ }).boundingBox())!;
  const to = (await page.getByRole('button', { name: /^Door rack, tier 2:/ }).boundingBox())!;
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(to.x + to.width - 30, to.y + 20, { steps: 8 });
  await page.mouse.up();
  await expect.poll(() => bayOf(page, app, 'tc1')).toBe('door/t2');
  await expect(page.getByTestId('unplaced')).toHaveText('2 trays stand nowhere on this date');
  // By keys alone.
  await shelf.getByRole('button', { name: /^Tc2/ }).focus();
  await page.keyboard.press('Enter');
  const choice = page.getByLabel('Stand Tc2 in');
  await choice.focus();
  await choice.selectOption({ label: 'Door rack, tier 2' });
  await expect.poll(() => bayOf(page, app, 'tc2')).toBe('door/t2');
  // What lacks a spot is found with its sowing, and is gone again once it stands.
  await page.goto(`${app.url}/sowing?on=2027-04-09`);
  await page
    .getByRole('button', { name: /Cauliflower/ })
    .first()
    .click();
  const sheet = page.getByTestId('sowing-sheet');
  await expect(sheet).toContainText('Find a spot for Cauliflower');
});

test('a tray is moved from a date on, turned, and swapped with another', async ({ page, app }) => {
  await page.goto(`${app.url}/?on=2027-04-20&bay=door/t2`);
  await page.getByRole('button', { name: 'Move Tc1 to another bay' }).click();
  await page.getByLabel('When').selectOption({ label: 'from 20 Apr on' });
  await page.getByLabel('Stand Tc1 in').selectOption({ label: 'Door rack, tier 4' });
  const moved = async () => (await stands(page, app, 'tc1')).find((stand) => stand.from);
  await expect.poll(moved).toMatchObject({ from: '2027-04-20', bay: { tier: 't4' } });
  await expect(page.getByTestId('week')).toContainText('Move Tc1 to Door rack, tier 4');

  const other = async () => (await stands(page, app, 'tc2')).find((s) => s.stage === 'grow')!;
  // Turned it would lie where the cucumber is to stand: refused, with the reason.
  await page.getByRole('button', { name: 'Turn Tc2 a quarter' }).click();
  await expect(page.getByRole('status')).toContainText('Cu1 stands in the way of Tc2');

  await page.getByRole('button', { name: 'Swap Tc2 with another tray' }).click();
  await page.getByLabel('Swap Tc2 with').selectOption({ label: 'Tc1, Door rack, tier 4' });
  await expect.poll(async () => (await other()).bay.tier).toBe('t4');
  await page.keyboard.press('u');
  await expect.poll(async () => (await other()).bay.tier).toBe('t2');
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('a tray is stood with taps', async ({ page, app }) => {
    await takeDown(page, app, ['tc1']);
    await page.goto(`${app.url}/?on=2027-04-20`);
    await page.getByTestId('tray-shelf').getByRole('button', { name: /^Tc1/ }).tap();
    await page.getByLabel('Stand Tc1 in').selectOption({ label: 'Door rack, tier 2' });
    await expect.poll(() => bayOf(page, app, 'tc1')).toBe('door/t2');
    await expect(page.getByTestId('tray-shelf')).toHaveCount(0);
  });
});
