// Gear of a whole place: what it has now, as the server is asked for it.
import type { Equipment, Place } from '../../api/client';
import { bench } from '../../bench/workbench.svelte';

/** What `place` is to have in all: what it has, but for the `change`. */
export function equipped(place: Place, change: Partial<Equipment>): Equipment {
  const lamps = place.tiers.flatMap((tier) => tier.lamps);
  const mats = place.tiers.flatMap((tier) => tier.mats);
  const own = mats.filter((mat) => mat.thermostat_c != null && !mat.switched_with);
  const whole: Equipment = {
    lamps: lamps.length,
    mats: mats.length,
    thermostats: own.length,
    ...change,
  };
  // What is not there and not asked for stays out of it.
  if (whole.lamps === 0 && lamps.length === 0) whole.lamp = undefined;
  if (whole.mats === 0 && mats.length === 0) whole.mat = undefined;
  return whole;
}

/** Spreads the lamps and mats of a place anew, after its size was changed. */
export async function respread(id: string) {
  const place = bench.places.find((other) => other.id === id);
  const kinds = bench.facts.kinds;
  if (!place || !kinds) return;
  const kindOf = (list: { id: string; name: string }[], name: string | undefined) =>
    list.find((kind) => kind.name === name)?.id;
  // What is of several kinds stays where it is.
  const only = (list: { name: string }[]) =>
    list.every((one) => one.name === list[0]?.name) ? list[0]?.name : undefined;
  const lamp = kindOf(kinds.lamps, only(place.tiers.flatMap((tier) => tier.lamps)));
  const mat = kindOf(kinds.mats, only(place.tiers.flatMap((tier) => tier.mats)));
  if (lamp || mat) await bench.edit({ equip: { place: id, with: equipped(place, { lamp, mat }) } });
}
