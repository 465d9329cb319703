<script lang="ts">
  // Several things are picked: what can be done with all of them.
  import type { Thing } from '../../api/client';
  import { again, takeOut } from '../build/actions';
  import { bench } from '../../bench/workbench.svelte';

  const name = $derived((thing: Thing) => {
    const place = bench.places.find((p) => p.id === thing.place);
    const tier = place?.tiers.find((t) => t.id === thing.tier);
    const gear = thing.gear && tier?.[thing.gear.list].find((g) => g.id === thing.gear?.id);
    const where = tier ? `${place?.name}, ${tier.name.toLowerCase()}` : (place?.name ?? '');
    return gear ? `${gear.name} in ${where}` : where;
  });
</script>

<div class="flex items-start justify-between gap-2">
  <h2 class="text-2xl">{bench.hand.picked.length} things picked</h2>
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
        aria-label="Let go of {name(thing)}"
        onclick={() => bench.pick(thing, true)}>✕</button
      >
    </li>
  {/each}
</ul>
<div class="flex flex-wrap gap-1.5">
  <button class="quiet border-line!" onclick={() => void again()}
    >The same again <kbd>a</kbd></button
  >
  <button class="quiet border-line!" onclick={() => void takeOut()}
    >Take them out <kbd>Del</kbd></button
  >
</div>
<p class="mt-3 text-sm text-soft">
  Shift with a click or with Enter picks one more thing, or lets it go. On a touch screen, press
  “Pick more” above the room.
</p>
