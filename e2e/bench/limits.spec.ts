// What a large plan, long use and many connections cost. Prints one JSON object.
import { connect, type Socket } from 'node:net';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { App, test } from '../app.ts';
import { largePlan } from './large-plan.ts';

/** How long a lamp is dragged about before memory is read. */
const DRAGGED_S = Number(process.env.BENCH_DRAG_S ?? 300);

const at = (values: number[], share: number) =>
  values.sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))]!;

function residentMb(app: App): number {
  const status = readFileSync(`/proc/${app.pid}/status`, 'utf8');
  return Number(/VmRSS:\s+(\d+)/.exec(status)![1]) / 1024;
}

/** Asks for what changes while a lamp is slid along and up and down for so many seconds. */
async function dragAbout(app: App, plan: ReturnType<typeof largePlan>, seconds: number) {
  const until = performance.now() + seconds * 1000;
  let since: string | undefined;
  let bytes = 0;
  const trips: number[] = [];
  for (let i = 0; performance.now() < until; i++) {
    const lamp = plan.places[0].tiers[1].lamps[0];
    lamp.x_mm = 500 + (i % 200);
    lamp.height_mm = 150 + (i % 37);
    const began = performance.now();
    const answer = await fetch(`${app.url}/api/assess/changes`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({
        what: {
          plan,
          from: '2027-04-09',
          to: '2027-04-09',
          detail: { bay: { place: plan.places[0].id, tier: plan.places[0].tiers[1].id } },
        },
        since,
      }),
    });
    const text = await answer.text();
    trips.push(performance.now() - began);
    since = (JSON.parse(text) as { id: string }).id;
    bytes = text.length;
  }
  return { trips, bytes };
}

test('long use, a large plan, many connections', async ({ page }) => {
  test.setTimeout(DRAGGED_S * 1000 + 300_000);
  const demo = JSON.parse(
    readFileSync(join(import.meta.dirname, '../../demo/kettle-fen.json'), 'utf8'),
  );
  const results: Record<string, number> = {};

  const app = await new App().start();
  await dragAbout(app, demo, DRAGGED_S);
  results.resident_dragged_mb = residentMb(app);

  // Connections that were used once and are kept open.
  const before = residentMb(app);
  const held: Socket[] = [];
  for (let i = 0; i < 200; i++) {
    const socket = connect(Number(new URL(app.url).port), '127.0.0.1');
    await new Promise((done) => socket.once('connect', done));
    socket.write('GET /healthz HTTP/1.1\r\nHost: localhost\r\n\r\n');
    await new Promise((done) => socket.once('data', done));
    held.push(socket);
  }
  results.connection_kb = ((residentMb(app) - before) * 1024) / held.length;
  held.forEach((socket) => socket.destroy());
  await app.stop();
  app.remove();

  // 600 trays: a drag by the interface alone, then in the browser.
  const large = await new App().start();
  const plan = largePlan(10);
  const { trips, bytes } = await dragAbout(large, plan, 10);
  results.large_drag_ms = at(trips, 0.5);
  results.large_drag_kb = bytes / 1000;
  await page.request.post(`${large.url}/api/plans`, { data: { plan, word: 'began' } });
  await page.goto(`${large.url}/?on=2027-04-09&bay=r0/t2`);
  await page.getByTestId('ppfd').waitFor();
  await page.waitForLoadState('networkidle');
  /** Presses a key so many times, each as soon as the figures of the one before are there. */
  const press = async (key: string, shown: string, times: number) => {
    const took: number[] = [];
    for (let i = 0; i < times; i++) {
      took.push(
        await page.evaluate(
          async ([key, shown]) => {
            const figure = document.querySelector(shown!)!;
            const before = figure.textContent;
            const began = performance.now();
            document.body.dispatchEvent(new KeyboardEvent('keydown', { key: key!, bubbles: true }));
            while (figure.textContent === before && performance.now() - began < 3000)
              await new Promise((done) => requestAnimationFrame(done));
            return performance.now() - began;
          },
          [key, shown],
        ),
      );
    }
    return took;
  };
  results.large_nudge_p95_ms = at(await press('ArrowUp', '[data-testid=gap]', 20), 0.95);
  results.large_scrub_p95_ms = at(await press(']', '[data-testid=ppfd]', 20), 0.95);
  results.large_resident_mb = residentMb(large);

  // A tray dropped on one of two bays that were cleared: until its new figures are there.
  const cleared = structuredClone(plan);
  for (const tray of cleared.trays) if (/^r11-[12]-/.test(tray.id)) tray.stands = [];
  const dropped: number[] = [];
  for (let i = 0; i < 20; i++) {
    const bay = { place: 'r11', tier: i % 2 ? 't2' : 't3' };
    const edit = { stand_trays: { trays: ['r0-0-0'], stage: 'germinate', bay } };
    const began = performance.now();
    const edited = await page.request.post(`${large.url}/api/edit`, {
      data: { plan: cleared, edit },
    });
    const { plan: moved } = await edited.json();
    const what = { plan: moved, from: '2027-04-09', to: '2027-04-09', detail: 'outline' };
    await page.request.post(`${large.url}/api/assess/changes`, { data: { what } });
    dropped.push(performance.now() - began);
  }
  results.large_drop_ms = at(dropped, 0.5);
  await large.stop();
  large.remove();
  console.log(JSON.stringify(results));
});
