// The room in front elevation: millimetres to pixels, the floor at the bottom.
import type { Rack } from '../api/client';

/** Space left of the racks for the ruler, in px. */
export const RULER_PX = 52;
const GAP_MM = 160;
/** Under the floor for the racks' names, over the posts for air, in px. */
const BELOW_PX = 36;
const ABOVE_PX = 12;

export interface Elevation {
  /** px per mm. */
  scale: number;
  /** The floor line. */
  floor: number;
  /** Left edge of each rack. */
  lefts: number[];
  /** Right end of all racks. */
  right: number;
  tallest: number;
  /** y of a height above the floor. */
  y: (mm: number) => number;
}

export function elevation(racks: Rack[], width: number, height: number): Elevation {
  const total = racks.reduce((sum, rack) => sum + rack.width_mm, 0) + GAP_MM * racks.length;
  const tallest = Math.max(...racks.map((rack) => rack.height_mm), 1);
  const scale = Math.max(
    0.05,
    Math.min((height - BELOW_PX - ABOVE_PX) / tallest, (width - RULER_PX) / Math.max(total, 1)),
  );
  const floor = ABOVE_PX + tallest * scale;
  const lefts: number[] = [];
  let x = RULER_PX + (GAP_MM / 2) * scale;
  for (const rack of racks) {
    lefts.push(x);
    x += (rack.width_mm + GAP_MM) * scale;
  }
  const right = x - (GAP_MM / 2) * scale;
  return { scale, floor, lefts, right, tallest, y: (mm) => floor - mm * scale };
}
