// A stranger on an empty data folder: from the first question to a season that stands in the room.
import type { Page } from '@playwright/test';
import { App, expect, test as base } from '../app.ts';

const test = base.extend<{ empty: App }>({
  empty: async ({}, use) => {
    const app = await new App(undefined, false).start();
    await use(app);
    await app.stop();
    app.remove();
  },
});

const KINDS = [
  ['tomato', 12],
  ['pepper', 8],
  ['aubergine', 6],
  ['lettuce', 24],
  ['cabbage', 12],
  ['leek', 40],
  ['celeriac', 12],
  ['basil', 12],
  ['sweet pea', 20],
  ['cosmos', 12],
  ['courgette', 4],
  ['pea', 60],
] as const;
const MOST_INTERACTIONS = 60;

/** A hand: everything it does is counted. */
interface Hand {
  done: number;
  press(name: string | RegExp, role?: 'button'): Promise<void>;
  type(label: string | RegExp, text: string): Promise<void>;
  choose(label: string, value: string): Promise<void>;
}

function mouse(page: Page, tap = false): Hand {
  const hit = (target: ReturnType<Page['getByRole']>) => (tap ? target.tap() : target.click());
  return {
    done: 0,
    async press(name) {
      this.done++;
      await hit(page.getByRole('button', { name }).first());
    },
    async type(label, text) {
      this.done++;
      const field = page
        .getByRole('textbox', { name: label })
        .or(page.getByRole('combobox', { name: label }));
      await field.first().fill(text);
      await field.first().press('Enter');
    },
    async choose(label, value) {
      this.done++;
      await page.getByLabel(label).first().selectOption(value);
    },
  };
}

/** Keys alone: Tab goes from one thing to the next, and is counted by what it leads to. */
function keys(page: Page): Hand {
  const focus = async (wanted: string | RegExp, kind: string) => {
    const is = (label: string) =>
      typeof wanted === 'string' ? label.startsWith(wanted) : wanted.test(label);
    for (let i = 0; i < 80; i++) {
      const [label, tag] = await page.evaluate(() => {
        const now = document.activeElement as HTMLInputElement | null;
        const named = now?.getAttribute('aria-label') ?? now?.labels?.[0]?.textContent;
        return [(named ?? now?.textContent ?? '').trim(), now?.tagName ?? ''];
      });
      if (is(label!) && tag === kind) return;
      await page.keyboard.press('Tab');
    }
    throw new Error(`Tab does not lead to ${wanted}`);
  };
  return {
    done: 0,
    async press(name) {
      this.done++;
      await focus(name, 'BUTTON');
      await page.keyboard.press('Enter');
    },
    async type(label, text) {
      this.done++;
      await focus(label, 'INPUT');
      await page.keyboard.press('ControlOrMeta+a');
      await page.keyboard.type(text);
      await page.waitForTimeout(150);
      await page.keyboard.press('Enter');
    },
    async choose(label, value) {
      this.done++;
      await focus(label, 'SELECT');
      await page.keyboard.type(value);
    },
  };
}

/** What a newcomer does; gives how many things that took. */
async function begins(page: Page, hand: Hand, town: string, corner: [string, string]) {
  const question = (text: string) =>
    expect(page.getByRole('heading', { level: 1, name: text })).toBeVisible();
  await question('Where do you grow?');
  await hand.type(/Your town/, town);
  await expect(page.getByTestId('home')).toBeVisible();
  await hand.press('Next: last frost');
  await question('When is your last frost?');
  await expect(page.getByTestId('estimate')).toContainText('estimate');
  await hand.press('Next: your corner');
  await question('How big is your corner?');
  await hand.type(/^Width/, corner[0]);
  await question('How big is your corner?');
  await hand.type(/^Depth/, corner[1]);
  await hand.press('Next: shelves and lamps');
  await question('What stands in your corner?');
  await hand.press(/^Narrow wire rack/);
  await hand.type(/^Lamps you own for Narrow/, '6');
  await expect(page.getByText('6 lamps over 3 shelves')).toBeVisible();
  await hand.type(/^Heat mats for Narrow/, '2');
  await hand.choose('Thermostat', 'one');
  await hand.press(/^Window sill/);
  await expect(page.getByLabel('Window faces')).toHaveValue('180');
  await hand.press('Next: what to grow');
  await question('What will you grow?');
  for (const [crop, plants] of KINDS) {
    await hand.type(/^A crop/, `${crop} ${plants}`);
    const sown = page.getByTestId('chosen').getByRole('listitem');
    await expect(sown.filter({ hasText: new RegExp(`^${crop}`, 'i') })).toHaveCount(1);
  }
  await hand.press('Next: your season');
  await expect(page.getByTestId('result')).toBeVisible();
  await hand.press('Open the room');
  expect(hand.done).toBeLessThanOrEqual(MOST_INTERACTIONS);
}

/** Every tray stands somewhere, or is said to find no spot. */
async function standsOrIsNamed(page: Page, app: App) {
  await expect(page.getByTestId('stage')).toBeVisible();
  const view = await (await fetch(`${app.url}/api/last-plan`)).json();
  expect(view.plan.sowings).toHaveLength(KINDS.length);
  const lit = view.plan.places[0].tiers.map((tier: { lamps: unknown[] }) => tier.lamps.length);
  expect(lit).toEqual([2, 2, 2, 0, 0]);
  const named = view.assessment.findings
    .filter((finding: { code: string }) => finding.code === 'stands_nowhere')
    .flatMap((finding: { trays: string[] }) => finding.trays);
  for (const tray of view.plan.trays)
    expect(tray.stands.length > 0 || named.includes(tray.id), tray.name).toBe(true);
  expect(view.plan.trays.length).toBeGreaterThan(12);
  return view.plan;
}

for (const [who, act] of [
  ['a mouse', mouse],
  ['keys alone', keys],
] as const) {
  test(`a newcomer with ${who} plans a dozen kinds in a room of their own`, async ({
    empty,
    page,
  }) => {
    await page.goto(empty.url);
    await begins(page, act(page), 'Vienna', ['260', '180']);
    const plan = await standsOrIsNamed(page, empty);
    expect(plan.room).toMatchObject({ width_mm: 2600, depth_mm: 1800 });
  });
}

test('a newcomer in inches sees the sizes that are sold there', async ({ empty, page }) => {
  await page.goto(empty.url);
  await begins(page, mouse(page), 'Chicago', ['102', '71']);
  const plan = await standsOrIsNamed(page, empty);
  expect(plan.places[0].width_mm).toBeCloseTo(48 * 25.4);
  expect(plan.site).toMatchObject({ units: 'us', mains_v: 120, currency: 'USD' });
  await page.goto(`${empty.url}/start?step=stands`);
  await expect(page.getByRole('button', { name: 'Narrow wire rack 48 × 18 in' })).toBeVisible();
  await expect(page.getByText('.03')).toHaveCount(0);
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });
  test('a newcomer plans by touch', async ({ empty, page }) => {
    await page.goto(empty.url);
    await begins(page, mouse(page, true), 'Vienna', ['260', '180']);
    await standsOrIsNamed(page, empty);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(wide).toBeLessThanOrEqual(390);
  });
});

test('the questions can be left, taken up and undone', async ({ empty, page }) => {
  await page.goto(empty.url);
  await page.getByLabel(/Your town/).fill('hobart');
  await page.getByRole('option', { name: /Hobart/ }).click();
  await expect(page.getByTestId('home')).toContainText('south');
  await page.getByRole('button', { name: 'Leave for now' }).click();
  await expect(page.getByText('This room is empty')).toBeVisible();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByRole('button', { name: /^Undo/ })).toBeDisabled();
  await page.getByTestId('stage').getByRole('link', { name: 'Guided start' }).click();
  await expect(page.getByRole('heading', { name: 'Where do you grow?' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Where do you grow?' })).toBeVisible();
});

test('an empty plan and the demo are always there, each a plan of its own', async ({
  empty,
  page,
}) => {
  await page.goto(empty.url);
  await page.getByRole('button', { name: 'An empty plan' }).click();
  await expect(page.getByText('This room is empty')).toBeVisible();
  await page.goto(`${empty.url}/start`);
  await page.getByRole('button', { name: 'The demo' }).click();
  // On a narrow window the header leaves its name out: the room itself shows whose it is.
  await expect(page.getByRole('button', { name: /^Door rack, Tier 2:/ })).toBeVisible();
  const plans = await (await fetch(`${empty.url}/api/plans`)).json();
  expect(plans).toHaveLength(2);
});
