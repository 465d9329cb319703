import { immutableJSONPatch } from 'immutable-json-patch';
import { describe, expect, it } from 'vitest';
import type { PatchStep, Plan } from '../api/client';
import { demo } from '../testing';
import { burn, hangLamps, placePath, replace, setOptional, setLastFrost, tierPath } from './edits';

describe('edits', () => {
  const bay = { place: 'door', tier: 't2' };

  it('name the lamps of the bay, and only those', () => {
    const before = demo();
    const patch = hangLamps(before, bay, [0, 2], 180);
    expect(patch.map((step) => step.path)).toEqual([
      '/places/0/tiers/1/lamps/0/height_mm',
      '/places/0/tiers/1/lamps/2/height_mm',
    ]);
    const after = immutableJSONPatch(before as never, patch as never) as unknown as Plan;
    expect(after.places[0]!.tiers[1]!.lamps.map((lamp) => lamp.height_mm)).toEqual([
      180, 230, 180, 230,
    ]);
    // The plan that was there stays as it was.
    expect(before).toEqual(demo());
  });

  it('reach hours, site and air', () => {
    const patch = [
      ...burn(demo(), bay, 13.5),
      ...setLastFrost(demo().site, '2027-05-16'),
      replace('/site/air/night_c', 12),
    ];
    const after = immutableJSONPatch(demo() as never, patch as never) as unknown as Plan;
    expect(after.places[0]!.tiers[1]!.photoperiod_h).toBe(13.5);
    expect(after.site.last_frost).toBe('2027-05-16');
    expect(after.site.air.night_c).toBe(12);
  });

  it('refuse a bay that the plan does not have', () => {
    expect(() => burn(demo(), { place: 'door', tier: 't9' }, 12)).toThrow('door/t9');
  });

  it('set, change and leave out a figure that may be unknown', () => {
    const at = '/places/0/rating_kg';
    const done = (patch: PatchStep[]) =>
      immutableJSONPatch(demo() as never, patch as never) as unknown as Plan;
    expect(done(setOptional(at, 300, true)).places[0]!.rating_kg).toBe(300);
    expect('rating_kg' in done(setOptional(at, undefined, true)).places[0]!).toBe(false);
    expect(setOptional('/places/2/rating_kg', undefined, false)).toEqual([]);
    expect(done(setOptional('/places/2/rating_kg', 120, false)).places[2]!.rating_kg).toBe(120);
  });

  it('refuse what the plan does not hold', () => {
    expect(placePath(demo(), 'cabinet')).toBe('/places/2');
    expect(() => placePath(demo(), 'attic')).toThrow('attic');
    expect(() => tierPath(demo(), { place: 'door', tier: 't9' })).toThrow('door/t9');
  });

  it('leave what they do not name the same object', () => {
    const before = demo();
    const patch = hangLamps(before, bay, [0], 180);
    const after = immutableJSONPatch(before as never, patch as never) as unknown as Plan;
    expect(after.places[1]).toBe(before.places[1]);
    expect(after.places[0]!.tiers[0]).toBe(before.places[0]!.tiers[0]);
    expect(after.places[0]!.tiers[1]).not.toBe(before.places[0]!.tiers[1]);
  });
});
