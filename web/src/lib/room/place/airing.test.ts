import { describe, expect, it } from 'vitest';
import type { Place } from '../../api/client';
import { airings, begun, isClosed } from './airing';

const sides = { left: 'foil', right: 'foil', back: 'foil', front: 'foil' } as const;
const place = (kind: object, own: object = {}) =>
  ({ kind, tiers: [{ sides: { ...sides, ...own } }] }) as unknown as Place;
const open = { left: 'open' };

describe('airing', () => {
  it('begins with what is chosen, and with nothing where it stays shut', () => {
    expect(begun('never')).toBeUndefined();
    expect(begun('hours')).toMatchObject({ from_h: 8, hours: 12 });
    expect(begun('hours')!.over_c).toBeUndefined();
    expect(begun('warm')).toMatchObject({ hours: 24 });
    expect(begun('warm')!.over_c).toBeGreaterThan(20);
    expect(Object.keys(airings)).toEqual(['never', 'hours', 'warm']);
  });

  it('is offered where something is closed', () => {
    expect(isClosed(place({ chamber: {} }, open))).toBe(true);
    expect(isClosed(place({ closet: { shut: true } }, open))).toBe(true);
    expect(isClosed(place({ closet: {} }, open))).toBe(false);
    expect(isClosed(place({ rack: {} }, open))).toBe(false);
    expect(isClosed(place({ rack: {} }))).toBe(true);
  });
});
