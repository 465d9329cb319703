import { describe, expect, it } from 'vitest';
import { demo } from '../../testing';
import {
  ABOVE_PX,
  BELOW_PX,
  EDGE_PX,
  fitScale,
  indexAt,
  LEAST_SCALE,
  row,
  wallMm,
} from './geometry';

const { places } = demo();

describe('the room in front elevation', () => {
  it('stands places side by side, walls and all', () => {
    const all = row(places);
    places.slice(1).forEach((place, i) => {
      const right = all.lefts[i]! + places[i]!.width_mm + wallMm(places[i]!);
      expect(all.lefts[i + 1]! - wallMm(place)).toBeGreaterThan(right);
    });
    expect(all.width).toBeGreaterThan(all.lefts.at(-1)! + places.at(-1)!.width_mm);
    expect(all.tallest).toBe(2050);
  });

  it('fits the height, or the whole row', () => {
    const all = row(places);
    const tall = fitScale(all, 860, 600, false);
    expect(all.tallest * tall + BELOW_PX + ABOVE_PX).toBeCloseTo(600);
    const whole = fitScale(all, 860, 600, true);
    expect(all.width * whole).toBeLessThanOrEqual(860.001 - EDGE_PX);
    expect(fitScale(row([]), 10, 10, true)).toBe(LEAST_SCALE);
  });

  it('finds the index that a place dropped there takes', () => {
    const all = row(places);
    expect(indexAt(all, places, -100)).toBe(0);
    expect(indexAt(all, places, all.lefts[1]!)).toBe(1);
    expect(indexAt(all, places, 1e6)).toBe(places.length);
  });
});
