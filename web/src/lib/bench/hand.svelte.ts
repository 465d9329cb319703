// What the hand has picked.
import type { BayRef, Thing } from '../api/client';
import { sameThing } from './things';

export class Hand {
  /** Places, tiers, lamps, mats and fans. */
  picked: Thing[] = $state.raw([]);
  /** Whether each tap picks one more thing, as Shift does with a keyboard. */
  pickingMore = $state(false);
  /** The one bay that is picked, itself or by something in it. */
  selected: BayRef | undefined = $derived.by(() => {
    const [only] = this.picked;
    return this.picked.length === 1 && only?.tier
      ? { place: only.place, tier: only.tier }
      : undefined;
  });
  /** The one place that is picked as a whole. */
  place: string | undefined = $derived.by(() => {
    const [only] = this.picked;
    return this.picked.length === 1 && only && !only.tier ? only.place : undefined;
  });

  has(thing: Thing): boolean {
    return this.picked.some((other) => sameThing(other, thing));
  }

  /** Picks a thing alone, or besides what is picked already; once more lets it go. */
  pick(thing: Thing | undefined, besides: boolean) {
    if (!thing) this.picked = [];
    else if (!besides && !this.pickingMore) this.picked = [thing];
    else if (this.has(thing)) this.picked = this.picked.filter((t) => !sameThing(t, thing));
    else this.picked = [...this.picked, thing];
  }
}
