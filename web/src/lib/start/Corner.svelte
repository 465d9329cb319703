<script lang="ts">
  // How big the corner is.
  import { replace } from '../bench/edits';
  import { bench } from '../bench/workbench.svelte';
  import NumberField from '../fields/NumberField.svelte';

  const room = $derived(bench.draft!.room);
  const words = $derived(bench.words);
  const fields = $derived([
    ['Width', room.width_mm, '/room/width_mm'],
    ['Depth', room.depth_mm, '/room/depth_mm'],
    ['Height', room.height_mm, '/room/height_mm'],
    ['Door width', room.door.width_mm, '/room/door/width_mm'],
    ['Door height', room.door.height_mm, '/room/door/height_mm'],
  ] as const);
  const air = $derived(bench.draft!.site.air);
  const warmth = $derived([
    ['Room by day', air.day_c, '/site/air/day_c'],
    ['Room by night', air.night_c, '/site/air/night_c'],
  ] as const);
</script>

<p class="mb-3 text-soft">
  The floor that your shelves may stand on, roughly. The door tells what can be carried in.
</p>
<div class="grid grid-cols-3 gap-3">
  {#each fields as [label, value, field] (field)}
    <NumberField
      {label}
      {value}
      quantity="length_mm"
      {field}
      onset={(mm) =>
        bench.keep(
          [replace(field, mm)],
          `set the room’s ${label.toLowerCase()} to ${words.number(mm, 'length_mm')}`,
        )}
    />
  {/each}
</div>
<h2 class="mt-5 mb-2 text-lg">How warm is it there in spring?</h2>
<div class="grid grid-cols-3 gap-3">
  {#each warmth as [label, value, field] (field)}
    <NumberField
      {label}
      {value}
      quantity="temperature_c"
      {field}
      onset={(c) =>
        bench.keep(
          [replace(field, c)],
          `set the ${label.toLowerCase()} to ${words.number(c, 'temperature_c')}`,
        )}
    />
  {/each}
</div>
