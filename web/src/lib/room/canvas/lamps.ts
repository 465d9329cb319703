// Lamps of a bay that hang at one height are one bar in front elevation, and move as one.
import type { BayOnDay, Lamp } from '../../api/client';
import { hangLamps } from '../../bench/edits';
import { steps } from '../../fields/slider';
import type { Words } from '../../say/words';
import { bench } from '../../bench/workbench.svelte';

export interface Bar {
  /** Indices of its lamps in the tier. */
  lamps: number[];
  height: number;
  left: number;
  right: number;
  body: number;
}

function extent(lamp: Lamp): [number, number] {
  const half =
    lamp.along === 'x'
      ? Math.max(...lamp.emitters.map((e) => e.length_mm)) / 2
      : Math.max(...lamp.emitters.map((e) => Math.abs(e.across_mm) + e.width_mm / 2));
  return [lamp.x_mm - half, lamp.x_mm + half];
}

export function bars(lamps: Lamp[]): Bar[] {
  const byHeight = new Map<number, Bar>();
  lamps.forEach((lamp, index) => {
    const [left, right] = extent(lamp);
    const bar = byHeight.get(lamp.height_mm);
    if (bar) {
      bar.lamps.push(index);
      bar.left = Math.min(bar.left, left);
      bar.right = Math.max(bar.right, right);
      bar.body = Math.max(bar.body, lamp.body_height_mm);
    } else {
      byHeight.set(lamp.height_mm, {
        lamps: [index],
        height: lamp.height_mm,
        left,
        right,
        body: lamp.body_height_mm,
      });
    }
  });
  return [...byHeight.values()];
}

/** A height the hand can set in the reader's units, within what the bay allows. */
export function settable(height: number, bay: BayOnDay, words: Words): number {
  const { factor, step } = words.unit('length_mm');
  const stepMm = step / factor;
  const snapped = Math.round(height / stepMm) * stepMm;
  const held = Math.min(Math.max(snapped, bay.lowest_face_mm), bay.highest_face_mm);
  return Number(held.toFixed(2));
}

const wordFor = (bay: BayOnDay, height: number) =>
  `hung ${bay.name} at ${bench.words.number(height, 'length_mm')}`;

export function tryHeight(bay: BayOnDay, lamps: number[], height: number) {
  bench.try(hangLamps(bench.draft!, bay.bay, lamps, height), wordFor(bay, height));
}

export function nudgeHeight(bay: BayOnDay, lamps: number[], height: number) {
  bench.nudge(hangLamps(bench.draft!, bay.bay, lamps, height), wordFor(bay, height));
}

/** The new height for an arrow key, if it is one. */
export function keyHeight(
  event: KeyboardEvent,
  height: number,
  bay: BayOnDay,
  words: Words,
): number | undefined {
  const across = event.key === 'ArrowLeft' || event.key === 'ArrowRight';
  const up = across ? undefined : steps(event, 5);
  if (up === undefined) return undefined;
  const { factor, step } = words.unit('length_mm');
  return settable(height + ((up * step) / factor) * (event.shiftKey ? 5 : 1), bay, words);
}
