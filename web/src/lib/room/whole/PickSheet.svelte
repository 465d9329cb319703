<script lang="ts">
  // Several things are picked: what can be done with all of them.
  import type { Thing } from '../../api/client';
  import { again, takeOut } from '../build/actions';
  import { bench } from '../../bench/workbench.svelte';

  const name = $derived((thing: Thing) => {
    const place = bench.places.find((p) => p.id === thing.place);
    const tier = place?.tiers.find((t) => t.id === thing.tier);
    const gear = thing.gear && tier?.[thing.gear.list].find((g) => g.id === thing.gear?.id);
    const where = tier ? `${place?.name}, ${tier.name}` : (place?.name ?? '');
    return gear ? `${gear.name} in ${where}` : where;
  });
</script>

<div class="flex items-start justify-between gap-2">
  <h2 class="text-2xl">{bench.hand.picked.length} things selected</h2>
  <button class="quiet" aria-label="Close the sheet" onclick={() => bench.pick(undefined)}
    >Close <kbd>Esc</kbd></button
  >
</div>
<ul class="my-3 flex flex-col" data-testid="picked">
  {#each bench.hand.picked as thing, i (i)}
    <li class="flex items-center justify-between border-t">
      {name(thing)}
      <button
        class="quiet"
        aria-label="Deselect {name(thing)}"
        onclick={() => bench.pick(thing, true)}>✕</button
      >
    </li>
  {/each}
</ul>
<div class="flex flex-wrap gap-1.5">
  <button class="quiet border-line!" onclick={() => void again()}>Add another <kbd>a</kbd></button>
  <button class="quiet border-line!" onclick={() => void takeOut()}
    >Remove them <kbd>Del</kbd></button
  >
</div>
<p class="mt-3 text-sm text-soft">
  Shift with a click or Enter selects one more thing, or deselects. On a touch screen, press “Select
  several” above the room.
</p>
