import { describe, expect, it } from 'vitest';
import type { BayOnDay, Lamp } from '../../api/client';
import { Words, unitsFor } from '../../say/words';
import { bars, keyHeight, settable } from './lamps';

const lamp = (id: string, height_mm: number, along: 'x' | 'y' = 'x'): Lamp => ({
  id,
  name: 'strip',
  family: 'white_led',
  cct_k: 5000,
  flux_lm: 4000,
  watts: 36,
  beam_deg: 120,
  along,
  x_mm: 610,
  y_mm: 300,
  height_mm,
  body_height_mm: 45,
  least_gap_mm: 50,
  emitters: [{ length_mm: 1150, width_mm: 40, across_mm: 0 }],
});

const length = (unit: string, factor: number, step: number) => ({
  unit,
  factor,
  offset: 0,
  decimals: 2,
  step,
});
const rows = [
  {
    quantity: 'length_mm' as const,
    metric: length('cm', 0.1, 0.5),
    us: length('in', 1 / 25.4, 0.25),
    held: length('mm', 1, 5),
  },
];
const words = (system: 'metric' | 'us') =>
  new Words(unitsFor(rows, system), system === 'us', 'EUR');
const bay = { lowest_face_mm: 10, highest_face_mm: 390 } as BayOnDay;
const key = (key: string, shiftKey = false) =>
  ({
    key,
    shiftKey,
    preventDefault: () => {},
    stopPropagation: () => {},
  }) as unknown as KeyboardEvent;

describe('lamps of a bay', () => {
  it('hang as one bar where they hang at one height', () => {
    const found = bars([lamp('a', 230), lamp('b', 180), lamp('c', 230)]);
    expect(found.map((bar) => bar.lamps)).toEqual([[0, 2], [1]]);
    expect([found[0]!.left, found[0]!.right]).toEqual([35, 1185]);
  });

  it('show their width when they run from front to back', () => {
    const [bar] = bars([lamp('a', 230, 'y')]);
    expect([bar!.left, bar!.right]).toEqual([590, 630]);
  });

  it('stop where the hand can set them and the bay lets them', () => {
    expect(settable(233, bay, words('metric'))).toBe(235);
    expect(settable(9999, bay, words('metric'))).toBe(390);
    expect(settable(-5, bay, words('metric'))).toBe(10);
    expect(settable(100, bay, words('us'))).toBe(101.6);
  });

  it('move a step with an arrow and five with Shift', () => {
    expect(keyHeight(key('ArrowUp'), 230, bay, words('metric'))).toBe(235);
    expect(keyHeight(key('ArrowDown', true), 230, bay, words('metric'))).toBe(205);
    expect(keyHeight(key('ArrowUp'), 101.6, bay, words('us'))).toBe(107.95);
    expect(keyHeight(key('a'), 230, bay, words('metric'))).toBeUndefined();
  });
});
