<script lang="ts">
  // One rack, bench or window: its size, and as many lamps and mats as there are.
  import type { Equipment, Place } from '../api/client';
  import { replace } from '../bench/edits';
  import { bench } from '../bench/workbench.svelte';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import CountField from '../fields/CountField.svelte';
  import NumberField from '../fields/NumberField.svelte';

  const { place, index }: { place: Place; index: number } = $props();
  const words = $derived(bench.words);
  const kinds = $derived(bench.facts.kinds);
  const lamps = $derived(place.tiers.flatMap((tier) => tier.lamps));
  const mats = $derived(place.tiers.flatMap((tier) => tier.mats));
  const thermostats = $derived(
    mats.filter((mat) => mat.thermostat_c != null && !mat.switched_with).length,
  );
  const window = $derived('window' in place.kind ? place.kind.window : undefined);
  const outdoors = $derived('cold_frame' in place.kind);

  // A kind is known by its name: the plan's lamps may have been changed since.
  let lampKind = $state('');
  let matKind = $state('');
  const lamp = $derived(
    lampKind ||
      kinds?.lamps.find((kind) => kind.name === lamps[0]?.name)?.id ||
      (place.width_mm >= 1100 ? 'shop-led-36' : 'bar-led-10'),
  );
  const mat = $derived(
    matKind || kinds?.mats.find((kind) => kind.name === mats[0]?.name)?.id || 'mat-small',
  );
  const named = (list: { id: string; name: string }[]) =>
    Object.fromEntries(list.map((kind) => [kind.id, kind.name]));

  async function equip(change: Partial<Equipment>) {
    const with_: Equipment = {
      lamp,
      lamps: lamps.length,
      mat,
      mats: mats.length,
      thermostats,
      ...change,
    };
    // What is not there and not asked for stays out of it.
    if (with_.lamps === 0 && lamps.length === 0) with_.lamp = undefined;
    if (with_.mats === 0 && mats.length === 0) with_.mat = undefined;
    await bench.edit({ equip: { place: place.id, with: with_ } });
  }

  async function size(field: 'width_mm' | 'depth_mm' | 'height_mm', mm: number) {
    bench.keep(
      [replace(`/places/${index}/${field}`, mm)],
      `set ${place.name} to ${words.number(mm, 'length_mm')}`,
    );
    await bench.settle();
    if (lamps.length > 0 || mats.length > 0) await equip({});
  }

  const facings = { 0: 'north', 90: 'east', 180: 'south', 270: 'west' } as const;
  const nearest = $derived(
    window ? String((Math.round(window.azimuth_deg / 90) * 90) % 360) : '180',
  );
  const lit = $derived(place.tiers.filter((tier) => tier.lamps.length > 0).length);
</script>

<section class="card p-3" aria-label={place.name}>
  <div class="flex items-baseline gap-2">
    <h2 class="grow text-lg">{place.name}</h2>
    <button
      type="button"
      class="quiet text-sm"
      aria-label="Remove {place.name}"
      onclick={() => void bench.edit({ remove: { things: [{ place: place.id }] } })}>Remove</button
    >
  </div>
  <div class="mt-1 flex flex-wrap gap-x-4 gap-y-2">
    <NumberField
      label="Width"
      value={place.width_mm}
      quantity="length_mm"
      field="/places/{index}/width_mm"
      onset={(mm) => void size('width_mm', mm)}
    />
    <NumberField
      label="Depth"
      value={place.depth_mm}
      quantity="length_mm"
      field="/places/{index}/depth_mm"
      onset={(mm) => void size('depth_mm', mm)}
    />
    {#if window}
      <ChoiceField
        label="Window faces"
        value={nearest}
        choices={facings as Record<string, string>}
        onset={(to) =>
          bench.keep(
            [replace(`/places/${index}/kind/window/azimuth_deg`, Number(to))],
            `${place.name} faces ${facings[Number(to) as 0]}`,
          )}
      />
    {/if}
  </div>
  {#if !outdoors && kinds}
    <div class="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
      <CountField
        label="Lamps you own"
        of="for {place.name}"
        value={lamps.length}
        most={60}
        onset={(n) => void equip({ lamps: n, lamp })}
      />
      {#if lamps.length > 0}
        <div class="min-w-0 grow basis-48">
          <ChoiceField
            label="of this kind"
            value={lamp}
            choices={named(kinds.lamps)}
            onset={(to) => {
              lampKind = to;
              void equip({ lamp: to });
            }}
          />
        </div>
      {/if}
    </div>
    <div class="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2">
      <CountField
        label="Heat mats"
        of="for {place.name}"
        value={mats.length}
        most={60}
        onset={(n) => void equip({ mats: n, mat, thermostats: Math.min(thermostats, n) })}
      />
      {#if mats.length > 0}
        <div class="min-w-0 grow basis-48">
          <ChoiceField
            label="of this kind"
            value={mat}
            choices={named(kinds.mats)}
            onset={(to) => {
              matKind = to;
              void equip({ mat: to });
            }}
          />
        </div>
        <ChoiceField
          label="Thermostat"
          value={thermostats === 0 ? 'none' : thermostats === 1 ? 'one' : 'each'}
          choices={{ none: 'none', one: mats.length > 1 ? 'one for all' : 'one', each: 'one each' }}
          onset={(to) =>
            void equip({ thermostats: to === 'none' ? 0 : to === 'one' ? 1 : mats.length })}
        />
      {/if}
    </div>
    {#if lit > 0}
      <p class="mt-2 text-sm text-soft">
        {lamps.length === 1 ? '1 lamp' : `${lamps.length} lamps`} over {lit === 1
          ? '1 shelf'
          : `${lit} shelves`}{place.tiers.length > lit && place.tiers.length > 1
          ? `; the other ${place.tiers.length - lit} stay dark, for germinating and storage`
          : ''}.
      </p>
    {/if}
  {/if}
</section>
