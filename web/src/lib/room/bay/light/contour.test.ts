import { describe, expect, it } from 'vitest';
import { bandEdge, shade } from './contour';

describe('the shades of a map', () => {
  it('run from dark to bright and stop at both ends', () => {
    expect(shade(0)).toBe('#2b1c4f');
    expect(shade(1)).toBe('#f7efa5');
    expect([shade(-1), shade(9)]).toEqual([shade(0), shade(1)]);
  });
});

describe('the edge of the band', () => {
  const part = {
    x_mm: [0, 20],
    y_mm: [0, 20],
    columns: 2,
    rows: 2,
    target: { low: 10, high: 17 },
  };
  const px = (mm: number) => mm;
  const py = (mm: number) => 100 - mm;

  it('is nowhere where all cells lie on one side of it', () => {
    expect(bandEdge(part, [12, 12, 13, 16], px, py)).toBe('');
    expect(bandEdge(part, [3, 4, 5, 6], px, py)).toBe('');
  });

  it('runs between a cell within and one without', () => {
    // Front left is too dark: an edge to its right and one behind it.
    expect(bandEdge(part, [5, 12, 12, 12], px, py)).toBe('M10 90V100M10 90H0');
  });

  it('parts too dark from too bright as well', () => {
    expect(bandEdge(part, [5, 20, 5, 20], px, py)).toBe('M10 90V100M10 80V90');
  });
});
