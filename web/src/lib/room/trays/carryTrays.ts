// Carrying trays over the room: off the shelf of those that stand nowhere, or out of a bay.
import type { Stage, TrayOnDay, UnplacedTray } from '../../api/client';
import { bench } from '../../bench/workbench.svelte';
import { carry } from '../carry.svelte';
import { held, ontoOf, type HeldTrays } from './held.svelte';
import { movesFrom, stand } from './move';

/** Holds trays from a press on, and stands them on the free spot nearest to where they are let go. */
function carryTrays(event: PointerEvent, trays: HeldTrays, done?: () => void) {
  carry.press(
    event,
    trays.label,
    ({ bay, at }) => {
      if (!bay) return;
      const deck_mm = bench.places.find((p) => p.id === bay.place)?.width_mm ?? 0;
      const spot = held.nearest(bay, at * deck_mm);
      const onto = spot && trays.trays.length === 1 ? ontoOf(spot) : undefined;
      done?.();
      void stand(trays.trays, trays.stage, bay, trays.from, onto);
    },
    { taken: () => void held.take(trays), letGo: () => setTimeout(() => held.letGo()) },
  );
}

/** A tray that is dragged out of a bay moves from the date looked at on. */
export function carryOut(event: PointerEvent, tray: TrayOnDay) {
  if (tray.stage === 'out') return;
  carryTrays(event, {
    trays: [tray.tray],
    label: tray.label,
    stage: tray.stage,
    from: movesFrom(tray),
    rim_mm: tray.rim_mm - tray.lift_mm,
  });
}

/** A tray off the shelf, with the others of its stage that are chosen with it. */
export function carryOff(
  event: PointerEvent,
  tray: UnplacedTray,
  chosen: UnplacedTray[],
  done: () => void,
) {
  const like = (other: UnplacedTray, stage: Stage) => other.stage === stage;
  const others = chosen.some((other) => other.tray === tray.tray)
    ? chosen.filter((other) => other.tray !== tray.tray && like(other, tray.stage))
    : [];
  const trays = [tray.tray, ...others.map((other) => other.tray)];
  const format = bench.draft?.tray_formats.find((f) => f.id === tray.format);
  carryTrays(
    event,
    {
      trays,
      label: trays.length > 1 ? `${trays.length} trays` : tray.label,
      stage: tray.stage,
      rim_mm: format?.height_mm ?? 0,
    },
    done,
  );
}
