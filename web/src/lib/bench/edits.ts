// Edits of single figures as JSON Patches: the same form that the server's own fixes have. What
// changes the plan's form (adding, copying, taking out) is the server's /api/edit.
import type { BayRef, PatchStep, Plan, Site } from '../api/client';

export const replace = (path: string, value: unknown): PatchStep => ({
  op: 'replace',
  path,
  value,
});

/** Sets a field that may be left out; undefined leaves it out. */
export function setOptional(path: string, value: unknown, there: boolean): PatchStep[] {
  if (value === undefined) return there ? [{ op: 'remove', path }] : [];
  return [{ op: 'add', path, value }];
}

/** Where a place stands in the document. */
export function placePath(plan: Plan, place: string): string {
  const index = plan.places.findIndex((p) => p.id === place);
  if (index < 0) throw new Error(`the plan has no place ${place}`);
  return `/places/${index}`;
}

/** Where a tier stands in the document. */
export function tierPath(plan: Plan, bay: BayRef): string {
  const place = placePath(plan, bay.place);
  const tiers = plan.places.find((p) => p.id === bay.place)!.tiers;
  const tier = tiers.findIndex((t) => t.id === bay.tier);
  if (tier < 0) throw new Error(`the plan has no tier ${bay.place}/${bay.tier}`);
  return `${place}/tiers/${tier}`;
}

export function hangLamps(plan: Plan, bay: BayRef, lamps: number[], height: number): PatchStep[] {
  const tier = tierPath(plan, bay);
  return lamps.map((lamp) => replace(`${tier}/lamps/${lamp}/height_mm`, height));
}

export function burn(plan: Plan, bay: BayRef, hours: number): PatchStep[] {
  return [replace(`${tierPath(plan, bay)}/photoperiod_h`, hours)];
}

/** Sets the last frost; whoever sets it knows better than our estimate. */
export function setLastFrost(site: Site, date: string): PatchStep[] {
  return [
    replace('/site/last_frost', date),
    ...setOptional(
      '/site/last_frost_estimated',
      undefined,
      site.last_frost_estimated !== undefined,
    ),
  ];
}

export function setSite(
  field: 'price_per_kwh' | 'latitude_deg' | 'name' | 'mains_v' | 'time_zone' | 'units' | 'currency',
  value: string | number,
): PatchStep[] {
  return [replace(`/site/${field}`, value)];
}
