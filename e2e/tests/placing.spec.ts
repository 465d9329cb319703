// Where trays stand: from the shelf into a bay, moved from a date on, turned and swapped; by mouse,
// by finger and by keys.
import { AxeBuilder } from '@axe-core/playwright';
import type { Locator, Page } from '@playwright/test';
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

/** Takes trays off their shelves; they stay in the plan, but for those that are put away. */
async function takeDown(page: Page, app: App, ids: string[], away: string[] = []) {
  const kept = await (await page.request.get(`${app.url}/api/plans/1`)).json();
  kept.plan.trays = kept.plan.trays.filter((tray: { id: string }) => !away.includes(tray.id));
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
  await expect(page.getByTestId('trays')).toHaveText('18 trays, room for 45');
  await expect(page.getByTestId('tray-shelf')).toHaveCount(0);
  await takeDown(page, app, ['tc1', 'tc2', 'cf1']);
  await page.reload();
  await expect(page.getByTestId('unplaced')).toHaveText('3 trays stand nowhere on this date');
  await expect(page.getByTestId('trays')).toHaveText('15 trays, room for 45, 3 nowhere');
  // By mouse, into the bay that it is let go over.
  const shelf = page.getByTestId('tray-shelf');
  const from = (await shelf.getByRole('button', { name: /^Tc1/ }).boundingBox())!;
  const to = (await page.getByRole('button', { name: /^Door rack, Tier 2:/ }).boundingBox())!;
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(to.x + to.width - 30, to.y + 20, { steps: 8 });
  await page.mouse.up();
  await expect.poll(() => bayOf(page, app, 'tc1')).toBe('door/t2');
  await expect(page.getByTestId('unplaced')).toHaveText('2 trays stand nowhere on this date');
  // By keys alone.
  await shelf.getByRole('button', { name: /^Tc2/ }).focus();
  await page.keyboard.press('Enter');
  await page.getByLabel('Stand Tc2 in').selectOption('door/t2');
  await page.getByRole('button', { name: 'Stand tray there' }).focus();
  await page.keyboard.press('Enter');
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
  await page.goto(`${app.url}/?on=2027-04-20&bay=door/t2&chapter=trays`);
  await page.getByRole('button', { name: 'Move Tc1 to another shelf' }).click();
  await page.getByLabel('When').selectOption({ label: 'from 20 Apr on' });
  const shelf = page.getByLabel('Stand Tc1 in');
  // A shelf that its plants outgrow says so, and can be chosen all the same.
  await expect(shelf.locator('option[value="door/t4"]')).toContainText('too low from');
  await shelf.selectOption('door/t4');
  await page.getByRole('button', { name: 'Move there' }).click();
  const moved = async () => (await stands(page, app, 'tc1')).find((stand) => stand.from);
  await expect.poll(moved).toMatchObject({ from: '2027-04-20', bay: { tier: 't4' } });
  await expect(page.getByTestId('week')).toContainText('Move Tc1 to Door rack, Tier 4');

  const other = async () => (await stands(page, app, 'tc2')).find((s) => s.stage === 'grow')!;
  // Turned it would lie where the cucumber is to stand: refused, with the reason.
  await page.getByRole('button', { name: 'Turn Tc2 a quarter' }).click();
  await expect(page.getByRole('status')).toContainText('Cu1 stands in the way of Tc2');

  await page.getByRole('button', { name: 'Swap Tc2 with another tray' }).click();
  await page.getByLabel('Swap Tc2 with').selectOption({ label: 'Tc1, Door rack, Tier 4' });
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
    await page.getByLabel('Stand Tc1 in').selectOption({ label: 'Door rack, Tier 2' });
    await page.getByRole('button', { name: 'Stand tray there' }).tap();
    await expect.poll(() => bayOf(page, app, 'tc1')).toBe('door/t2');
    await expect(page.getByTestId('tray-shelf')).toHaveCount(0);
  });
});

/** One way to work the page: by mouse, by finger or by keys. */
interface Hand {
  press: (control: Locator) => Promise<void>;
}
const hands: Record<string, (page: Page) => Hand> = {
  mouse: () => ({ press: (control) => control.click() }),
  finger: () => ({ press: (control) => control.tap() }),
  keys: (page) => ({
    press: async (control) => {
      await expect(control).toBeEnabled();
      await control.focus();
      const box = (await control.getAttribute('type')) === 'checkbox';
      await page.keyboard.press(box ? 'Space' : 'Enter');
    },
  }),
};

/** Stands six trays from the shelf, turns one, swaps two, moves one from a date on, shares a flat and
 * pots on. */
async function aSeason(page: Page, app: App, { press }: Hand) {
  const six = ['tc1', 'tc2', 'to1', 'to2', 'tp1', 'pa1'];
  await takeDown(page, app, [...six, 'cu1'], ['au2', 'au3']);
  await page.goto(`${app.url}/?on=2027-04-10`);
  const shelf = page.getByTestId('tray-shelf');
  // Two at once, then one by one, each where the server proposes.
  await press(shelf.getByRole('button', { name: /^Tc1/ }));
  await press(shelf.getByRole('button', { name: /^Tc2/ }));
  await press(page.getByRole('button', { name: 'Stand trays there' }));
  await expect.poll(() => bayOf(page, app, 'tc2')).not.toBe('');
  for (const id of ['to1', 'to2', 'tp1', 'pa1']) {
    const label = `${id[0]!.toUpperCase()}${id.slice(1)}`;
    await press(shelf.getByRole('button', { name: new RegExp(`^${label}`) }));
    await press(page.getByRole('button', { name: 'Stand tray there' }));
    await expect.poll(() => bayOf(page, app, id)).not.toBe('');
  }
  await expect(shelf).toHaveCount(0);

  const [place, tier] = (await bayOf(page, app, 'tc1')).split('/');
  await page.goto(`${app.url}/?on=2027-04-10&bay=${place}/${tier}&chapter=trays`);
  const own = async (id: string) => (await stands(page, app, id)).at(-1)!;
  // Slid with the arrow button to where it is free, then swapped.
  const before = await own('tc2');
  await press(page.getByRole('button', { name: /^Slide Tc2 to the right/ }));
  await expect.poll(async () => (await own('tc2')).x_mm).not.toBe(before.x_mm);
  const [one, two] = [await own('tc1'), await own('tc2')];
  await press(page.getByRole('button', { name: 'Swap Tc1 with another tray' }));
  await page.getByLabel('Swap Tc1 with').selectOption('tc2');
  await expect.poll(async () => (await own('tc1')).x_mm).toBe(two.x_mm);
  expect((await own('tc2')).x_mm).toBe(one.x_mm);
  // From a date on, in the middle of growing.
  await page.goto(`${app.url}/?on=2027-04-20&bay=${place}/${tier}&chapter=trays`);
  await press(page.getByRole('button', { name: 'Move Tc2 to another shelf' }));
  await page.getByLabel('When').selectOption({ label: 'from 20 Apr on' });
  await page.getByLabel('Stand Tc2 in').selectOption('bench/t1');
  await press(page.getByRole('button', { name: 'Move there' }));
  const moved = async () => (await stands(page, app, 'tc2')).find((stand) => stand.from)!;
  await expect.poll(async () => (await moved())?.from).toBe('2027-04-20');

  // Turned where there is room for it.
  await page.goto(`${app.url}/?on=2027-04-20&bay=bench/t1&chapter=trays`);
  const lay = (await moved()).along;
  await press(page.getByRole('button', { name: 'Turn Tc2 a quarter' }));
  await expect.poll(async () => (await moved()).along).not.toBe(lay);

  // A flat for two kinds of lettuce, and pots for the cherry tomatoes.
  await page.goto(`${app.url}/sowing?on=2027-03-10`);
  await press(page.getByRole('button', { name: 'Share a flat…' }));
  const panel = page.getByTestId('share-flat');
  for (const name of [/^Lettuce ‘Rust/, /^Lettuce ‘.*Cos/i, /^Cabbage ‘.*sown/])
    await press(panel.getByRole('checkbox', { name }).first());
  await press(panel.getByRole('button', { name: 'Share this flat' }).first());
  const flats = async () =>
    (await plan(page, app)).trays.filter((tray: { sown_together?: boolean }) => tray.sown_together);
  await expect.poll(async () => (await flats()).length).toBe(2);

  // Potted on into pots that stand from that day on.
  await page.goto(`${app.url}/sowing?on=2027-04-10`);
  const strand = page.getByTestId('strand-aubergine');
  await strand.focus();
  await page.keyboard.press('Enter');
  const sheet = page.getByTestId('sowing-sheet');
  await expect(sheet).toContainText('Its 12 pots: none planned yet');
  await press(sheet.getByRole('button', { name: 'Add pots for them' }));
  const pots = async () =>
    (await plan(page, app)).trays.filter(
      (tray: { potted?: boolean; parts: { sowing: string }[] }) =>
        tray.potted && tray.parts[0]!.sowing === 'aubergine',
    );
  await expect.poll(async () => (await pots()).length).toBe(1);
  const [{ id, name }] = await pots();
  await page.goto(`${app.url}/?on=2027-05-02`);
  await press(shelf.getByRole('button', { name: new RegExp(`^${name}`) }));
  await press(page.getByRole('button', { name: 'Stand tray there' }));
  await expect.poll(() => bayOf(page, app, id)).not.toBe('');
}

for (const way of ['mouse', 'keys'] as const)
  test(`a season is stood, shared and potted on by ${way}`, async ({ page, app }) => {
    await aSeason(page, app, hands[way]!(page));
  });

test.describe('with a finger on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  test('a season is stood, shared and potted on by touch', async ({ page, app }) => {
    await aSeason(page, app, hands.finger!(page));
  });
});

test('the plan of a shared flat is printed with its labels', async ({ page, app }) => {
  await page.goto(`${app.url}/print?tray=mx1`);
  const drawn = page.getByTestId('tray-plan');
  for (const kind of ['African marigold', 'Broccoli', 'Chard', 'French marigold'])
    await expect(drawn).toContainText(kind);
  await expect(page.getByRole('list', { name: 'Labels' }).getByRole('listitem')).toHaveCount(6);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the plan as SVG' }).click();
  expect((await download).suggestedFilename()).toBe('Mx1.svg');
  // On paper there is nothing of the application around it.
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('banner')).toBeHidden();
  await expect(drawn).toBeVisible();
});

test('a tray that is dragged shows the spot it gets, and why a bay is none', async ({
  page,
  app,
}) => {
  await takeDown(page, app, ['tc1']);
  await page.goto(`${app.url}/?on=2027-04-10`);
  const from = (await page
    .getByTestId('tray-shelf')
    .getByRole('button', { name: /^Tc1/ })
    .boundingBox())!;
  const over = async (name: RegExp) => {
    const box = (await page.getByRole('button', { name }).boundingBox())!;
    await page.mouse.move(box.x + box.width * 0.7, box.y + 10, { steps: 6 });
  };
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await over(/^Proving cabinet, Shelf 2:/);
  await expect(page.getByTestId('against')).toContainText('no light to grow in');
  await over(/^Door rack, Tier 2:/);
  await expect(page.getByTestId('ghost')).toBeVisible();
  await expect(page.getByTestId('against')).toHaveCount(0);
  await page.mouse.up();
  await expect.poll(() => bayOf(page, app, 'tc1')).toBe('door/t2');
});

for (const ground of ['day', 'night'] as const)
  test(`axe finds nothing where trays are stood, shared and printed by ${ground}`, async ({
    page,
    app,
  }) => {
    await page.emulateMedia({ colorScheme: ground === 'night' ? 'dark' : 'light' });
    await takeDown(page, app, ['tc1', 'tc2']);
    const clean = async () => {
      await page.waitForLoadState('networkidle');
      const { violations } = await new AxeBuilder({ page }).analyze();
      const said = violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target).join(' | ')}`);
      expect(said).toEqual([]);
    };
    await page.goto(`${app.url}/?on=2027-04-10`);
    await page.getByTestId('tray-shelf').getByRole('button', { name: /^Tc1/ }).click();
    await expect(page.getByRole('button', { name: 'Stand tray there' })).toBeEnabled();
    await clean();
    await page.goto(`${app.url}/?on=2027-04-10&bay=coat/t1&chapter=trays`);
    await page.getByRole('button', { name: /^More about To1/ }).click();
    await clean();
    await page.goto(`${app.url}/?on=2027-04-10&place=coat`);
    await clean();
    await page.goto(`${app.url}/sowing?on=2027-04-10`);
    await page.getByRole('button', { name: 'Share a flat…' }).click();
    const panel = page.getByTestId('share-flat');
    for (const name of [/^Lettuce ‘Rust/, /^Pepper ‘Lantern/])
      await panel.getByRole('checkbox', { name }).check();
    await expect(panel.getByTestId('flat')).toHaveCount(2);
    await clean();
    await page.goto(`${app.url}/print?tray=mx1`);
    await expect(page.getByTestId('tray-plan')).toBeVisible();
    await clean();
  });

test('a place is set otherwise from a date on, and what is set is taken out again', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/?on=2027-04-01&place=door`);
  const set = page.getByRole('region', { name: 'Set otherwise from a date on' });
  await set.getByLabel('What').selectOption({ label: 'mats stay on under what grows' });
  await set.getByLabel('Where').selectOption({ label: 'Tier 3' });
  await set.getByRole('button', { name: 'Set this from 1 Apr on' }).click();
  const settings = async () => (await plan(page, app)).places[0].settings ?? [];
  await expect.poll(settings).toEqual([{ from: '2027-04-01', tier: 't3', mats_growing: true }]);
  await expect(set).toContainText('From 1 Apr: mats stay on under what grows, Tier 3');
  // What grows on the mat is warmed from then on.
  await page.goto(`${app.url}/?on=2027-04-20&bay=door/t3&chapter=warmth`);
  await expect(page.getByText(/Pe1 .*mat/).first()).toBeVisible();
  await page.goto(`${app.url}/?on=2027-04-01&place=door`);
  await set.getByRole('button', { name: 'Remove what is set from 1 Apr' }).click();
  await expect.poll(settings).toEqual([]);
});
