// Measures the running application for the table of budgets: prints one JSON object.
import { gzipSync } from 'node:zlib';
import { readFileSync } from 'node:fs';
import { App, test } from '../app.ts';

const median = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

/** From the start of the process to the first answered request, in ms. */
async function startMs(): Promise<number> {
  const app = new App();
  const began = performance.now();
  await app.start();
  await (await fetch(`${app.url}/api/plans/1`)).json();
  const took = performance.now() - began;
  await app.stop();
  app.remove();
  return took;
}

test('the running application', async ({ page, app }) => {
  test.setTimeout(120_000);
  const starts: number[] = [];
  for (let i = 0; i < 5; i++) starts.push(await startMs());

  const scripts: Promise<number>[] = [];
  page.on('response', (response) => {
    if (new URL(response.url()).pathname.endsWith('.js'))
      scripts.push(response.body().then((body) => gzipSync(body, { level: 9 }).length));
  });
  const began = performance.now();
  await page.goto(`${app.url}/?on=2027-04-09&bay=door/t2`);
  await page.getByTestId('ppfd').waitFor();
  const firstViewMs = performance.now() - began;
  await page.waitForLoadState('networkidle');

  // A drag: from each move of the pointer to the frame that shows new figures.
  const trips: number[] = await page.evaluate(async () => {
    const lamp = document.querySelector(
      '[aria-label="Lamps of Door rack, Tier 2, height above the shelf"]',
    )!;
    const figure = document.querySelector('[data-testid=gap]')!;
    const box = lamp.getBoundingClientRect();
    const fire = (type: string, y: number) =>
      lamp.dispatchEvent(
        new PointerEvent(type, { bubbles: true, pointerId: 1, clientX: box.x + 80, clientY: y }),
      );
    const middle = box.y + box.height / 2;
    fire('pointerdown', middle);
    const trips: number[] = [];
    for (let i = 1; i <= 40; i++) {
      const before = figure.textContent;
      const start = performance.now();
      fire('pointermove', middle + (i % 2 ? -12 : 6) - (i % 5));
      while (figure.textContent === before && performance.now() - start < 2000)
        await new Promise((done) => requestAnimationFrame(done));
      trips.push(performance.now() - start);
    }
    fire('pointerup', middle);
    return trips;
  });

  const status = readFileSync(`/proc/${app.pid}/status`, 'utf8');
  const residentMb = Number(/VmRSS:\s+(\d+)/.exec(status)![1]) / 1024;
  console.log(
    JSON.stringify({
      start_ms: median(starts),
      first_view_ms: firstViewMs,
      script_kb: (await Promise.all(scripts)).reduce((sum, bytes) => sum + bytes, 0) / 1000,
      drag_ms: median([...trips]),
      drag_worst_ms: Math.max(...trips),
      resident_mb: residentMb,
    }),
  );
});
