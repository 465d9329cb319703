// The room in front elevation: places in a row, millimetres to pixels. x runs from the left end of
// the row, y up from the floor, both in px of the drawing as it is laid out.
import type { Place } from '../../api/client';

/** Free space around each place, where its gauges stand. */
export const GAP_MM = 300;
/** Under the floor for names, over the tallest place for the view's buttons, in px. */
export const BELOW_PX = 64;
export const ABOVE_PX = 54;
/** The ruler's strip at the left, in px. */
export const EDGE_PX = 46;
export const LEAST_SCALE = 0.03;
export const MOST_SCALE = 1.5;

/** The walls of a chamber stand outside its decks. */
export function wallMm(place: Place): number {
  return 'chamber' in place.kind
    ? place.kind.chamber.walls.reduce((sum, wall) => sum + wall.thickness_mm, 0)
    : 0;
}

export interface Row {
  /** Left edge of each place's decks, in mm from the left end of the row. */
  lefts: number[];
  /** Whole width and greatest height, in mm. */
  width: number;
  tallest: number;
}

export function row(places: Place[]): Row {
  const lefts: number[] = [];
  let x = GAP_MM / 4;
  for (const place of places) {
    const wall = wallMm(place);
    lefts.push(x + wall);
    x += place.width_mm + 2 * wall + GAP_MM;
  }
  const heights = places.map((place) => place.height_mm + wallMm(place));
  return { lefts, width: Math.max(x, 1), tallest: Math.max(...heights, 1) };
}

/** The scale at which the tallest place fills the height, and whole room the width if asked. */
export function fitScale(all: Row, width: number, height: number, whole: boolean): number {
  const byHeight = (height - BELOW_PX - ABOVE_PX) / all.tallest;
  const byWidth = (width - EDGE_PX) / all.width;
  const scale = whole ? Math.min(byHeight, byWidth) : byHeight;
  return Math.min(Math.max(scale, LEAST_SCALE), MOST_SCALE);
}

/** The place whose middle is nearest to `x_mm`, and so the index that something put there takes. */
export function indexAt(all: Row, places: Place[], x_mm: number): number {
  const middles = places.map((place, i) => (all.lefts[i] ?? 0) + place.width_mm / 2);
  return middles.filter((middle) => middle < x_mm).length;
}
