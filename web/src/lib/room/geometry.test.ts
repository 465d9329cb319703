import { describe, expect, it } from 'vitest';
import type { Rack } from '../api/client';
import { elevation, RULER_PX } from './geometry';

const rack = (width_mm: number, height_mm: number): Rack => ({
  id: 'r',
  name: 'Rack',
  width_mm,
  depth_mm: 600,
  height_mm,
  deck: 'wire',
  deck_thickness_mm: 25,
  tiers: [],
});

describe('the room in front elevation', () => {
  it('is to one scale, stands on the floor and fits the view', () => {
    const view = elevation([rack(1220, 1900), rack(900, 1500)], 900, 600);
    expect(view.y(0)).toBe(view.floor);
    expect(view.floor - view.y(1900)).toBeCloseTo(1900 * view.scale);
    expect(view.y(1900)).toBeGreaterThanOrEqual(0);
    expect(view.right).toBeLessThanOrEqual(900);
    expect(view.lefts[0]).toBeGreaterThan(RULER_PX);
    // The racks do not touch.
    expect(view.lefts[1]! - view.lefts[0]!).toBeGreaterThan(1220 * view.scale);
  });

  it('is held by its width where the view is narrow', () => {
    const [wide, narrow] = [900, 390].map((width) => elevation([rack(1220, 1900)], width, 900));
    expect(narrow!.scale).toBeLessThan(wide!.scale);
    expect(narrow!.right).toBeLessThanOrEqual(390);
  });

  it('stands an empty room', () => {
    expect(elevation([], 600, 400).scale).toBeGreaterThan(0);
  });
});
