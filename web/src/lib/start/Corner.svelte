<script lang="ts">
  // How big the corner is, and how warm.
  import type { Quantity } from '../api/client';
  import { replace } from '../bench/edits';
  import { bench } from '../bench/workbench.svelte';
  import NumberField from '../fields/NumberField.svelte';

  type Figure = readonly [label: string, value: number, path: string];
  const room = $derived(bench.draft!.room);
  const sizes: Figure[] = $derived([
    ['Width', room.width_mm, '/room/width_mm'],
    ['Depth', room.depth_mm, '/room/depth_mm'],
    ['Height', room.height_mm, '/room/height_mm'],
    ['Door width', room.door.width_mm, '/room/door/width_mm'],
    ['Door height', room.door.height_mm, '/room/door/height_mm'],
  ]);
  const air = $derived(bench.draft!.site.air);
  const warmth: Figure[] = $derived([
    ['Room by day', air.day_c, '/site/air/day_c'],
    ['Room by night', air.night_c, '/site/air/night_c'],
  ]);
</script>

{#snippet fields(figures: Figure[], quantity: Quantity)}
  <div class="grid grid-cols-3 gap-3">
    {#each figures as [label, value, field] (field)}
      <NumberField
        {label}
        {value}
        {quantity}
        {field}
        onset={(next) =>
          bench.keep(
            [replace(field, next)],
            `${label.toLowerCase()}: ${bench.words.number(next, quantity)}`,
          )}
      />
    {/each}
  </div>
{/snippet}

<p class="mb-3 text-soft">
  The floor that your shelves may stand on, roughly. The door tells what can be carried in.
</p>
{@render fields(sizes, 'length_mm')}
<h2 class="mt-5 mb-2 text-lg">How warm is it there in spring?</h2>
{@render fields(warmth, 'temperature_c')}
