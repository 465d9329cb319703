// Edits of the plan as JSON Patches: the same form that the server's own fixes have.
import type { BayRef, PatchStep, Plan } from './api/client';

const replace = (path: string, value: unknown): PatchStep => ({ op: 'replace', path, value });

/** Where a tier stands in the document. */
function tierPath(plan: Plan, bay: BayRef): string {
  const place = plan.places.findIndex((p) => p.rack.id === bay.place);
  const tier = plan.places[place]?.rack.tiers.findIndex((t) => t.id === bay.tier) ?? -1;
  if (tier < 0) throw new Error(`the plan has no tier ${bay.place}/${bay.tier}`);
  return `/places/${place}/rack/tiers/${tier}`;
}

export function hangLamps(plan: Plan, bay: BayRef, lamps: number[], height: number): PatchStep[] {
  const tier = tierPath(plan, bay);
  return lamps.map((lamp) => replace(`${tier}/lamps/${lamp}/height_mm`, height));
}

export function burn(plan: Plan, bay: BayRef, hours: number): PatchStep[] {
  return [replace(`${tierPath(plan, bay)}/photoperiod_h`, hours)];
}

export function setSite(
  field: 'last_frost' | 'price_per_kwh' | 'latitude_deg' | 'name' | 'mains_v' | 'time_zone',
  value: string | number,
): PatchStep[] {
  return [replace(`/site/${field}`, value)];
}

export function setAir(field: 'day_c' | 'night_c', value: number): PatchStep[] {
  return [replace(`/site/air/${field}`, value)];
}
