// What can be picked: places, tiers and gear, by their names.
import type { BayRef, Plan, Thing } from '../api/client';

export function same(a: BayRef | undefined, b: BayRef | undefined): boolean {
  return !!a && !!b && a.place === b.place && a.tier === b.tier;
}

export function sameThing(a: Thing, b: Thing): boolean {
  return (
    a.place === b.place &&
    (a.tier ?? '') === (b.tier ?? '') &&
    a.gear?.list === b.gear?.list &&
    a.gear?.id === b.gear?.id
  );
}

/** Whether the plan has it. */
export function isThere(plan: Plan | undefined, thing: Thing): boolean {
  const place = plan?.places.find((p) => p.id === thing.place);
  const tier = place?.tiers.find((t) => t.id === thing.tier);
  if (!thing.tier) return !!place;
  return !thing.gear
    ? !!tier
    : !!tier?.[thing.gear.list].some((item) => item.id === thing.gear?.id);
}
