<script lang="ts">
  // One rack, bench or window: its size, and as many lamps and mats as there are.
  import type { Place } from '../api/client';
  import { replace } from '../bench/edits';
  import { bench } from '../bench/workbench.svelte';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import { respread } from '../room/place/equip';
  import WholeGear from '../room/place/WholeGear.svelte';

  const { place, index }: { place: Place; index: number } = $props();
  const words = $derived(bench.words);
  const window = $derived('window' in place.kind ? place.kind.window : undefined);
  const outdoors = $derived('cold_frame' in place.kind);

  async function size(field: 'width_mm' | 'depth_mm' | 'height_mm', mm: number) {
    bench.keep(
      [replace(`/places/${index}/${field}`, mm)],
      `set ${place.name} to ${words.number(mm, 'length_mm')}`,
    );
    await bench.settle();
    await respread(place.id);
  }

  const facings = { 0: 'north', 90: 'east', 180: 'south', 270: 'west' } as const;
  const nearest = $derived(
    window ? String((Math.round(window.azimuth_deg / 90) * 90) % 360) : '180',
  );
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
  {#if !outdoors}<WholeGear {place} />{/if}
</section>
