// A room of 12 racks and 240 tray positions: frames a second while it is panned, zoomed, and while
// a lamp and a deck are dragged. Prints one JSON object.
import type { Page } from '@playwright/test';
import { test } from '../app.ts';
import { largePlan } from './large-plan.ts';

const FRAMES = 180;

interface Motion {
  selector: string;
  kind: 'pan' | 'zoom' | 'drag';
  frames: number;
}

/** Moves the hand once a frame; frames a second over all, and of the slowest twentieth. */
async function rate(page: Page, motion: Motion) {
  return page.evaluate(async ({ selector, kind, frames }) => {
    const target = document.querySelector(selector)!;
    const box = target.getBoundingClientRect();
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    const fire = (type: string, dx: number, dy: number) =>
      target.dispatchEvent(
        new PointerEvent(type, {
          bubbles: true,
          cancelable: true,
          pointerId: 1,
          clientX: x + dx,
          clientY: y + dy,
        }),
      );
    const frame = () => new Promise<number>((done) => requestAnimationFrame(done));
    // Capture of a made-up pointer fails; the hand does not need it here.
    Element.prototype.setPointerCapture = () => undefined;
    if (kind !== 'zoom') fire('pointerdown', 0, 0);
    const times = [await frame()];
    for (let i = 1; i <= frames; i++) {
      const swing = Math.sin(i / 25);
      if (kind === 'pan') fire('pointermove', -swing * 380, swing * 20);
      else if (kind === 'drag') fire('pointermove', 0, -Math.abs(swing) * 14);
      else
        target.dispatchEvent(
          new WheelEvent('wheel', {
            bubbles: true,
            cancelable: true,
            deltaY: Math.cos(i / 25) * 24,
            clientX: x,
            clientY: y,
          }),
        );
      times.push(await frame());
    }
    if (kind !== 'zoom') fire('pointerup', 0, 0);
    const gaps = times.slice(1).map((time, i) => time - times[i]!);
    gaps.sort((a, b) => a - b);
    const mean = gaps.reduce((sum, gap) => sum + gap, 0) / gaps.length;
    return { fps: 1000 / mean, slow: 1000 / gaps[Math.floor(gaps.length * 0.95)]! };
  }, motion);
}

test('a room of 12 racks and 240 tray positions', async ({ page, app }) => {
  test.setTimeout(120_000);
  await page.request.post(`${app.url}/api/plans`, {
    data: { plan: largePlan(), word: 'began' },
  });
  await page.goto(`${app.url}/?on=2027-04-09`);
  await page.locator('[data-bay="r0/t2"]').waitFor();
  await page.waitForLoadState('networkidle');
  const stage = '[data-testid=stage]';
  const results: Record<string, number> = {};
  const measure = async (name: string, selector: string, kind: Motion['kind']) => {
    const { fps, slow } = await rate(page, { selector, kind, frames: FRAMES });
    results[`${name}_fps`] = fps;
    results[`${name}_slow_fps`] = slow;
    await page.waitForTimeout(600);
  };
  await measure('pan', stage, 'pan');
  await measure('zoom', stage, 'zoom');
  await page.keyboard.press('0');
  // Laid out and painted anew first: what is measured is the motion.
  await page.waitForTimeout(1500);
  await measure('pan_whole', stage, 'pan');
  await page.keyboard.press('0');
  await page.waitForTimeout(1500);
  await measure('lamp', '[aria-label="Lamps of Rack 1, Tier 2, height above the shelf"]', 'drag');
  await page.keyboard.press('b');
  await page.getByTestId('shelf').locator('li').nth(3).waitFor();
  await measure('deck', '[aria-label="Height of Rack 1, Tier 4 above the floor"]', 'drag');
  console.log(JSON.stringify(results));
});
