// The trays that a hand holds over the room, and what each bay has for them.
import {
  api,
  type BayRef,
  type BaySpots,
  type FreeSpot,
  type Onto,
  type Stage,
} from '../../api/client';
import { bench } from '../../bench/workbench.svelte';

export interface HeldTrays {
  trays: string[];
  label: string;
  stage: Stage;
  /** From this date on; from the stage's first day without one. */
  from?: string | undefined;
  /** Height of the rim, to draw it. */
  rim_mm: number;
}

const key = (bay: BayRef) => `${bay.place}/${bay.tier}`;

class Held {
  now: HeldTrays | undefined = $state.raw();
  #bays: Record<string, BaySpots> = $state.raw({});

  /** Takes trays up, and asks where the first of them could stand. */
  async take(held: HeldTrays) {
    this.now = held;
    this.#bays = {};
    const [tray] = held.trays;
    if (!bench.draft || !tray) return;
    const found = await spotsFor(tray, held.stage, held.from);
    if (this.now === held) this.#bays = found;
  }

  letGo() {
    this.now = undefined;
    this.#bays = {};
  }

  /** What a bay has for them; undefined until it is known. */
  of(bay: BayRef): BaySpots | undefined {
    return this.#bays[key(bay)];
  }

  /** The free spot nearest to a hand that holds the tray's middle at so much of the deck's width. */
  nearest(bay: BayRef, at_mm: number): FreeSpot | undefined {
    const middle = (spot: FreeSpot) => (spot.x_mm[0]! + spot.x_mm[1]!) / 2;
    const spots = this.of(bay)?.spots ?? [];
    return spots.reduce<FreeSpot | undefined>((best, spot) => {
      const off = Math.abs(middle(spot) - at_mm);
      return best && Math.abs(middle(best) - at_mm) <= off ? best : spot;
    }, undefined);
  }
}

/** A spot as an edit wants it. */
export function ontoOf(spot: FreeSpot): Onto {
  return { x_mm: spot.x_mm[0]!, y_mm: spot.y_mm[0]!, along: spot.along, stacked: false };
}

/** What each bay has for a tray, by `place/tier`; nothing where the server cannot say. */
export async function spotsFor(
  tray: string,
  stage: Stage,
  from?: string,
  stacked = false,
): Promise<Record<string, BaySpots>> {
  if (!bench.draft) return {};
  try {
    const held = { tray, stage, stacked, ...(from ? { from } : {}) };
    const all = await api.spots(bench.draft, held);
    return Object.fromEntries(all.map((spots) => [key(spots.bay), spots]));
  } catch {
    return {};
  }
}

export const held = new Held();
