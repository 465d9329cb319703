import { describe, expect, it } from 'vitest';
import type { Assessment } from '../api/client';
import { lanes, tooMany } from './lanes';

const season = (light: number[], spots = { warm: 0, light: 3, outdoors: 0 }) =>
  ({
    spots,
    days: light.map((n, i) => ({
      date: `2027-03-0${i + 1}`,
      demand: { warm: 0, light: n, outdoors: n },
    })),
  }) as unknown as Assessment['season'];

describe('lanes', () => {
  it('shows what is asked for, and no cold frame where there is none', () => {
    expect(lanes(season([1, 2])).map((lane) => lane.kind)).toEqual(['light']);
    const framed = season([1, 2], { warm: 2, light: 3, outdoors: 4 });
    expect(lanes(framed).map((lane) => lane.kind)).toEqual(['light', 'outdoors']);
  });

  it('tells the days with too many, and by how much at the most', () => {
    const [light] = lanes(season([3, 4, 5, 3, 4]));
    expect(tooMany(light!)).toEqual([
      { from: '2027-03-02', to: '2027-03-03', short: 2 },
      { from: '2027-03-05', to: '2027-03-05', short: 1 },
    ]);
    expect(tooMany(lanes(season([3, 3]))[0]!)).toEqual([]);
  });
});
