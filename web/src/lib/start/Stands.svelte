<script lang="ts">
  // What stands in the corner, and what hangs and lies in it.
  import { onMount, tick } from 'svelte';
  import type { Place } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import StandCard from './StandCard.svelte';

  const words = $derived(bench.words);
  const kinds = $derived(bench.facts.kinds?.places ?? []);
  onMount(() => void bench.facts.fetchKinds(bench.draft!.site.units));

  const size = (place: Place) =>
    `${words.bare(place.width_mm, 'length_mm')} × ${words.bare(place.depth_mm, 'length_mm')} ${words.unit('length_mm').unit}`;

  // What most people have comes first.
  const FIRST = ['narrow-wire-rack', 'wire-rack', 'window-sill', 'bench', 'wall-shelf', 'cabinet'];
  const rank = (place: Place) => (FIRST.indexOf(place.id) + FIRST.length) % FIRST.length;
  const usual = $derived(
    kinds.filter((kind) => FIRST.includes(kind.id)).sort((a, b) => rank(a) - rank(b)),
  );
  const others = $derived(kinds.filter((kind) => !FIRST.includes(kind.id)));
  let more = $state(false);
  let list: HTMLElement | undefined = $state();

  async function add(kind: string) {
    await bench.edit({ add_place: { kind } });
    // Here the whole room is looked at, and nothing in it is picked.
    bench.select(undefined);
    await tick();
    list?.lastElementChild?.scrollIntoView({ block: 'nearest' });
  }
</script>

<p class="mb-3 text-soft">Tap what you have; sizes can be changed here or later in the room.</p>
<div class="flex flex-col gap-3" bind:this={list}>
  {#each bench.places as place, index (place.id)}
    <StandCard {place} {index} />
  {/each}
</div>
<ul class="mt-3 flex flex-wrap gap-2" aria-label="Add to the corner" data-testid="kinds">
  {#each more ? [...usual, ...others] : usual as kind (kind.id)}
    <li>
      <button
        type="button"
        class="quiet min-h-11! border-frame! bg-raised!"
        onclick={() => void add(kind.id)}
        >{kind.name} <span class="text-sm text-soft">{size(kind)}</span></button
      >
    </li>
  {/each}
  {#if !more && others.length > 0}
    <li>
      <button type="button" class="quiet min-h-11!" onclick={() => (more = true)}>More …</button>
    </li>
  {/if}
</ul>
{#if (bench.assessment?.season.capacity.standard ?? 0) > 0}
  <p class="mt-4 rounded-xl bg-sage-soft p-3">
    Room for <b>{bench.assessment!.season.capacity.standard} standard trays</b> at once, lit or not.
  </p>
{/if}
{#if bench.places.length > 0}
  <p class="mt-4 border-t pt-2 text-sm text-soft">
    <b>Mains and water.</b>
    {bench.assessment?.caution}
  </p>
{/if}
