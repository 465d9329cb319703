// Where trays stand: the server finds a free spot, or says why there is none.
import type { BayRef, Onto, Share, Stage, TrayOnDay } from '../../api/client';
import { bench } from '../../bench/workbench.svelte';

/** Stands trays in a bay from a stage on, or from a date within it. */
export function stand(trays: string[], stage: Stage, bay: BayRef, from?: string, onto?: Onto) {
  return bench.edit({
    stand_trays: { trays, stage, bay, ...(from ? { from } : {}), ...(onto ? { onto } : {}) },
  });
}

/** From when on a hand moves a tray that stands somewhere: from the date looked at, unless it only
 * comes there then. */
export function movesFrom(tray: TrayOnDay): string | undefined {
  return tray.since < bench.date ? bench.date : undefined;
}

/** Slides a tray along its deck, to the free spot nearest to so far away. */
export function slide(tray: TrayOnDay, bay: BayRef, by_mm: number) {
  const own = bench.draft?.trays.find((t) => t.id === tray.tray);
  // The spot that it has is the one that changes, whenever it began.
  const now = own?.stands.filter(
    (s) => s.stage === tray.stage && (!s.from || s.from <= bench.date),
  );
  const from = now
    ?.map((s) => s.from ?? '')
    .sort()
    .at(-1);
  const onto = { x_mm: tray.x_mm[0]! + by_mm, y_mm: tray.y_mm[0]! };
  return stand([tray.tray], tray.stage, bay, from || undefined, onto);
}

/** Turns a tray a quarter where it stands on the date looked at. */
export function turn(tray: string) {
  return bench.edit({ turn_tray: { tray, on: bench.date } });
}

/** Lets two trays change places where they stand on the date looked at. */
export function swap(tray: string, other: string) {
  return bench.edit({ swap_trays: { tray, with: other, on: bench.date } });
}

/** Sets a tray on a box of its own; on none without a height. */
export function boxUnder(tray: string, box_mm: number | undefined) {
  return bench.edit({ box_under: { tray, on: bench.date, ...(box_mm ? { box_mm } : {}) } });
}

/** Sows or pots a tray in another container. */
export function setFormat(tray: string, format: string) {
  return bench.edit({ set_format: { tray, format } });
}

/** Adds the pots that a sowing is potted on into. */
export function potOn(sowing: string) {
  return bench.edit({ pot_on: { sowing } });
}

/** Shares a flat among kinds. */
export function shareFlat(share: Share) {
  return bench.edit({ share_flat: share });
}
