// The stage: how far away the room is seen and which part of it. Moving and zooming only shift one
// transformed layer; the drawing is laid out anew, with its texts at their size, once the hand
// rests.
import {
  ABOVE_PX,
  BELOW_PX,
  EDGE_PX,
  fitScale,
  LEAST_SCALE,
  MOST_SCALE,
  type Row,
} from './geometry';

const REST_MS = 140;
/** px per mm: smaller than this nobody makes out what stands where. */
const SMALLEST_WHOLE = 0.07;

class Stage {
  /** px per mm of the drawing as it is laid out. */
  scale = $state(0.28);
  /** What a zoom under way adds to it. */
  live = $state(1);
  /** Left end of the row, and the floor, on the screen. */
  x = $state(EDGE_PX);
  floor = $state(0);
  width = $state(0);
  height = $state(0);
  /** Whether the hand has zoomed: then a resized window leaves the scale alone. */
  #zoomed = false;
  #all: Row = { lefts: [], width: 1, tallest: 1 };
  #rest: ReturnType<typeof setTimeout> | undefined;

  /** px per mm on the screen now. */
  get shown(): number {
    return this.scale * this.live;
  }

  /** The window's or the room's size changed. */
  resize(all: Row, width: number, height: number) {
    this.#all = all;
    this.width = width;
    this.height = height;
    if (this.#zoomed || width <= 0) return;
    // A room that would be too small to make out, as on a phone, begins at its full height.
    this.fit(fitScale(all, width, height, true) >= SMALLEST_WHOLE);
  }

  fit(whole: boolean) {
    clearTimeout(this.#rest);
    this.live = 1;
    this.scale = fitScale(this.#all, this.width, this.height, whole);
    this.x = EDGE_PX;
    const wide = this.width - EDGE_PX - this.#all.width * this.scale;
    if (whole && wide > 0) this.x += wide / 2;
    const free = this.height - this.#all.tallest * this.scale - BELOW_PX - ABOVE_PX;
    this.floor = ABOVE_PX + this.#all.tallest * this.scale + Math.max(free, 0) * 0.6;
    this.#hold();
  }

  /** The whole room; from there back to its full height. */
  toggleWhole() {
    const whole = fitScale(this.#all, this.width, this.height, true);
    const isWhole = Math.abs(this.shown - whole) < 1e-6;
    this.#zoomed = !isWhole;
    this.fit(!isWhole);
  }

  panBy(dx: number, dy: number) {
    this.x += dx;
    this.floor += dy;
    this.#hold();
  }

  /** Zooms around a point of the screen; the middle unless one is given. */
  zoomBy(factor: number, x = this.width / 2, y = this.height / 2) {
    this.#zoomed = true;
    const next = Math.min(Math.max(this.shown * factor, LEAST_SCALE), MOST_SCALE);
    const by = next / this.shown;
    this.live *= by;
    this.x = x - (x - this.x) * by;
    this.floor = y - (y - this.floor) * by;
    this.#hold();
    clearTimeout(this.#rest);
    this.#rest = setTimeout(() => this.#layOut(), REST_MS);
  }

  #layOut() {
    this.scale *= this.live;
    this.live = 1;
  }

  /** Keeps some of the room in sight. */
  #hold() {
    const seen = Math.min(this.width * 0.4, 160);
    const wide = this.#all.width * this.shown;
    const tall = this.#all.tallest * this.shown;
    this.x = Math.min(Math.max(this.x, seen - wide), Math.max(this.width - seen, 0));
    this.floor = Math.min(Math.max(this.floor, seen), this.height + tall - seen);
    // A row that fits is not pushed off its end.
    const free = this.width - EDGE_PX - wide;
    if (free >= 0) this.x = Math.min(Math.max(this.x, EDGE_PX), EDGE_PX + free);
  }

  /** Brings a stretch of the row into sight. */
  reveal(left_mm: number, right_mm: number) {
    const left = this.x + left_mm * this.shown;
    const right = this.x + right_mm * this.shown;
    if (left < 60) this.panBy(60 - left, 0);
    else if (right > this.width - 24) this.panBy(this.width - 24 - right, 0);
  }

  /** A point of the screen in the row: mm from its left end and over the floor. */
  at(x: number, y: number): { x_mm: number; height_mm: number } {
    return { x_mm: (x - this.x) / this.shown, height_mm: (this.floor - y) / this.shown };
  }
}

export const stage = new Stage();
