// Refreshes docs/screenshots from the demo: `cargo xtask shots`.
import { join } from 'node:path';
import { test } from '../app.ts';

const FOLDER = join(import.meta.dirname, '../../docs/screenshots');
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

interface Shot {
  name: string;
  path: string;
  size: { width: number; height: number };
  ground: 'light' | 'dark';
  /** A heading of the sheet to scroll to. */
  see?: string;
  /** A chapter of the sheet to open. */
  chapter?: string;
  /** A button to press first. */
  press?: string;
  /** What is to be there before that, and after it, by its test id. */
  wait?: string;
  after?: string;
}

const SHOTS = [
  { name: 'room-day', path: '/?on=2027-04-09&bay=door/t2', size: DESK, ground: 'light' },
  { name: 'room-night', path: '/?on=2027-04-09&bay=door/t2', size: DESK, ground: 'dark' },
  { name: 'room-build', path: '/?on=2027-04-09&place=coat&build', size: DESK, ground: 'light' },
  { name: 'room-whole', path: '/?on=2027-04-09', size: DESK, ground: 'light' },
  {
    name: 'bay-light',
    path: '/?on=2027-04-09&bay=door/t1',
    size: DESK,
    ground: 'light',
    see: 'Light map',
  },
  {
    name: 'bay-warmth',
    path: '/?on=2027-03-20&bay=door/t3',
    size: DESK,
    ground: 'light',
    chapter: 'Warmth',
  },
  {
    name: 'today-phone',
    path: '/today?on=2027-04-09',
    size: PHONE,
    ground: 'light',
    wait: 'walk',
    see: 'South bench',
  },
  {
    name: 'log',
    path: '/log?on=2027-04-09&tray=pe1',
    size: DESK,
    ground: 'light',
    wait: 'story',
  },
  {
    name: 'correction',
    path: '/log?on=2027-04-09&show=learned',
    size: DESK,
    ground: 'light',
    wait: 'corrections',
    press: 'Look at the correction',
    after: 'effect',
  },
  {
    name: 'comparison',
    path: '/log?on=2027-04-09&show=compare&a=tray:cf1&b=tray:cf2',
    size: DESK,
    ground: 'light',
    wait: 'comparison',
  },
  {
    name: 'diagnosis-phone',
    path: '/log?on=2027-04-09&tray=mx1&seen=uneven',
    size: PHONE,
    ground: 'light',
    wait: 'causes',
    see: 'Something wrong with it?',
  },
  { name: 'room-phone', path: '/?on=2027-04-09', size: PHONE, ground: 'light' },
  { name: 'start-season', path: '/start?step=season&on=2027-04-09', size: DESK, ground: 'light' },
  { name: 'sowing', path: '/sowing?on=2027-04-09', size: DESK, ground: 'light' },
  { name: 'seeds', path: '/seeds?on=2027-04-09', size: DESK, ground: 'light' },
  { name: 'setup-day', path: '/setup?on=2027-04-09', size: DESK, ground: 'light' },
  { name: 'flat-plan', path: '/print?tray=mx1&on=2027-03-18', size: DESK, ground: 'light' },
  { name: 'power-day', path: '/power?on=2027-04-10', size: DESK, ground: 'light', wait: 'savings' },
] satisfies Shot[] as Shot[];

test('tray-shelf', async ({ page, app }) => {
  // Four trays are taken off their decks, and one is on its way back.
  const { plan, revision } = await (await page.request.get(`${app.url}/api/plans/1`)).json();
  for (const tray of plan.trays)
    if (['tc1', 'tc2', 'pe1', 'pe2'].includes(tray.id)) tray.stands = [];
  const data = { plan, base_revision: revision, word: 'took four trays down' };
  await page.request.post(`${app.url}/api/plans/1/revisions`, { data });
  await page.setViewportSize(DESK);
  await page.goto(`${app.url}/?on=2027-04-20`);
  const tray = page.getByTestId('tray-shelf').getByRole('button', { name: /^Tc1/ });
  const [from, to] = [
    await tray.boundingBox(),
    await page.getByRole('button', { name: /^Door rack, Tier 2:/ }).boundingBox(),
  ];
  await page.evaluate(() => document.fonts.ready);
  await page.mouse.move(from!.x + 20, from!.y + 20);
  await page.mouse.down();
  await page.mouse.move(to!.x + to!.width * 0.45, to!.y + 12, { steps: 8 });
  await page.getByTestId('ghost').waitFor();
  await page.screenshot({ path: join(FOLDER, 'tray-shelf.png'), animations: 'disabled' });
});

for (const shot of SHOTS) {
  test(shot.name, async ({ page, app }) => {
    await page.setViewportSize(shot.size);
    await page.emulateMedia({ colorScheme: shot.ground });
    await page.goto(app.url + shot.path);
    await page.getByTestId('stage').or(page.getByTestId('date')).first().waitFor();
    await page.waitForLoadState('networkidle');
    await page.evaluate(() => document.fonts.ready);
    if (shot.wait) await page.getByTestId(shot.wait).waitFor();
    if (shot.chapter) await page.getByRole('tab', { name: shot.chapter }).click();
    if (shot.press) await page.getByRole('button', { name: shot.press }).first().click();
    if (shot.after) await page.getByTestId(shot.after).waitFor();
    if (shot.see) {
      const heading = page.getByRole('heading', { name: shot.see });
      // Only what scrolls by hand: the page itself stays where it is.
      await heading.evaluate((element) => {
        let box = element.parentElement!;
        while (box.parentElement && getComputedStyle(box).overflowY !== 'auto')
          box = box.parentElement;
        box.scrollBy(0, element.getBoundingClientRect().top - box.getBoundingClientRect().top);
      });
    }
    await page.screenshot({ path: join(FOLDER, `${shot.name}.png`), animations: 'disabled' });
  });
}
