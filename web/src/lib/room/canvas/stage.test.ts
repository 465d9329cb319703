import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { demo } from '../../testing';
import { ABOVE_PX, BELOW_PX, EDGE_PX, LEAST_SCALE, MOST_SCALE, row } from './geometry';
import { stage } from './stage.svelte';

const { places } = demo();
const all = row(places);

describe('the stage', () => {
  beforeEach(() => {
    vi.useFakeTimers();
    stage.resize(all, 868, 560);
    stage.fit(false);
  });
  afterEach(() => {
    vi.runAllTimers();
    vi.useRealTimers();
  });

  it('begins with the tallest place in full, right of the ruler', () => {
    expect(all.tallest * stage.shown).toBeCloseTo(560 - ABOVE_PX - BELOW_PX);
    expect(stage.x).toBe(EDGE_PX);
    expect(stage.floor + BELOW_PX).toBeLessThanOrEqual(560);
  });

  it('zooms around the hand: what is under it stays under it', () => {
    const before = stage.at(500, 300);
    stage.zoomBy(1.7, 500, 300);
    const after = stage.at(500, 300);
    expect(after.x_mm).toBeCloseTo(before.x_mm);
    expect(after.height_mm).toBeCloseTo(before.height_mm);
  });

  it('lays out anew once the hand rests, and nothing jumps', () => {
    stage.zoomBy(2, 400, 200);
    expect(stage.live).toBeCloseTo(2);
    const before = stage.at(123, 45);
    const shown = stage.shown;
    vi.advanceTimersByTime(1000);
    expect(stage.live).toBe(1);
    expect(stage.shown).toBeCloseTo(shown);
    expect(stage.at(123, 45).x_mm).toBeCloseTo(before.x_mm);
  });

  it('zooms neither without end nor out of sight', () => {
    for (let i = 0; i < 60; i++) stage.zoomBy(1.5, 10, 10);
    expect(stage.shown).toBeCloseTo(MOST_SCALE);
    for (let i = 0; i < 60; i++) stage.zoomBy(0.5, 860, 550);
    expect(stage.shown).toBeCloseTo(LEAST_SCALE);
    // Small as it is, it stands within the view.
    expect(stage.x).toBeGreaterThanOrEqual(0);
    expect(stage.x + all.width * stage.shown).toBeLessThanOrEqual(868);
  });

  it('keeps some of the room in sight however far it is pushed', () => {
    stage.panBy(-1e6, -1e6);
    expect(stage.x + all.width * stage.shown).toBeGreaterThan(100);
    expect(stage.floor).toBeGreaterThan(100);
    stage.panBy(2e6, 2e6);
    expect(stage.x).toBeLessThan(868);
    expect(stage.floor - all.tallest * stage.shown).toBeLessThan(560);
  });

  it('shows the whole room and goes back', () => {
    const tall = stage.shown;
    stage.toggleWhole();
    expect(all.width * stage.shown).toBeLessThanOrEqual(868 - EDGE_PX + 0.01);
    stage.toggleWhole();
    expect(stage.shown).toBeCloseTo(tall);
  });

  it('brings what was picked into sight, and leaves what is in sight', () => {
    const last = all.lefts.at(-1)!;
    stage.reveal(last, last + places.at(-1)!.width_mm);
    const right = stage.x + (last + places.at(-1)!.width_mm) * stage.shown;
    expect(right).toBeLessThanOrEqual(868);
    const x = stage.x;
    stage.reveal(last, last + 10);
    expect(stage.x).toBe(x);
  });

  it('follows a new size of the window until the hand has zoomed', () => {
    stage.resize(all, 868, 400);
    // The whole room is the first view, wherever it can be made out.
    expect(all.width * stage.shown).toBeCloseTo(868 - EDGE_PX);
    stage.resize(all, 390, 400);
    expect(all.tallest * stage.shown).toBeCloseTo(400 - ABOVE_PX - BELOW_PX);
    stage.zoomBy(1.3);
    const shown = stage.shown;
    stage.resize(all, 868, 560);
    expect(stage.shown).toBeCloseTo(shown);
    stage.toggleWhole();
    stage.toggleWhole();
  });
});
