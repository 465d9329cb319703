// The season's time axis, shared by the ribbon and by all that stands under it.
import { scaleLinear } from 'd3-scale';
import { clampDate, daysBetween, plusDays } from '../say/dates';

/** Width of the gutter left of the axis, in px. */
export const GUTTER_PX = 230;

export class TimeAxis {
  #scale;

  constructor(
    readonly from: string,
    readonly to: string,
    readonly width: number,
  ) {
    this.#scale = scaleLinear([0, daysBetween(from, to)], [0, width]);
  }

  x(date: string): number {
    return this.#scale(daysBetween(this.from, date));
  }

  date(x: number): string {
    return clampDate(plusDays(this.from, Math.round(this.#scale.invert(x))), this.from, this.to);
  }

  /** First days of the months within. */
  months(): string[] {
    const firsts: string[] = [];
    let [year = 0, month = 1] = this.from.split('-').map(Number);
    for (;;) {
      const first = `${year}-${String(month).padStart(2, '0')}-01`;
      if (first > this.to) return firsts;
      if (first >= this.from) firsts.push(first);
      month += 1;
      if (month > 12) [year, month] = [year + 1, 1];
    }
  }
}
