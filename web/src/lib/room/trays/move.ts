// Where trays stand: the server finds a free spot, or says why there is none.
import type { BayRef, Stage } from '../../api/client';
import { bench } from '../../bench/workbench.svelte';

/** Stands a tray in a bay from a stage on, or from a date within it. */
export function move(tray: string, stage: Stage, bay: BayRef, from?: string) {
  return bench.edit({ move_tray: { tray, stage, bay, ...(from ? { from } : {}) } });
}

/** Turns a tray a quarter where it stands on the date looked at. */
export function turn(tray: string) {
  return bench.edit({ turn_tray: { tray, on: bench.date } });
}

/** Lets two trays change places where they stand on the date looked at. */
export function swap(tray: string, other: string) {
  return bench.edit({ swap_trays: { tray, with: other, on: bench.date } });
}
