<script lang="ts">
  // A feed and all that hangs on it. What is dragged onto it is plugged into it.
  import { bench } from '../bench/workbench.svelte';
  import { cords } from './cords.svelte';
  import Cord from './Cord.svelte';
  import { sort, type Node } from './loads';

  const { node }: { node: Node } = $props();
  const words = $derived(bench.words);
  const what = $derived(sort(node.feed));
  const over = $derived(
    node.load?.limits.some((limit) => limit.over) ||
      (node.load?.most_lamps != null && node.load.plugs > node.load.most_lamps) ||
      (node.load?.outlets != null && node.load.plugs > node.load.outlets),
  );
  const limit = $derived(node.load?.limits[0]);
  /** What it carries of what it may, and how many plugs are in it. */
  const figures = $derived.by(() => {
    const load = node.load;
    if (!load) return '';
    const watts = words.number(load.peak_w, 'power_w');
    const of = limit ? ` of ${words.number(limit.lasting_va, 'power_w')}` : '';
    const plugs =
      load.most_lamps != null
        ? `, ${load.plugs} of ${load.most_lamps} lamps`
        : load.outlets != null
          ? `, ${load.plugs} of ${load.outlets} plugs`
          : '';
    return `${watts}${of}${plugs}`;
  });
  const takes = $derived(cords.held !== undefined && cords.fits(node.feed));
  const tone = {
    circuit: 'bg-raised',
    socket: 'bg-raised',
    strip: 'bg-sage-soft',
    timer: 'bg-straw-soft',
    chain: 'bg-teal-soft',
  } as const;
  let over_it = $state(false);
</script>

<li class="relative pl-4">
  <span class="absolute top-4 left-0 h-px w-4 bg-frame"></span>
  <div
    role="group"
    aria-label={node.feed.name}
    class="inline-flex max-w-full flex-wrap items-center gap-x-2 rounded-lg border px-2 py-1 {tone[
      what
    ]}"
    class:border-wine={over}
    class:outline-2={takes && over_it}
    class:outline-coral={takes && over_it}
    ondragover={(event) => {
      if (!takes) return;
      event.preventDefault();
      over_it = true;
    }}
    ondragleave={() => (over_it = false)}
    ondrop={(event) => {
      event.preventDefault();
      over_it = false;
      cords.plugInto(node.feed.id);
    }}
  >
    <button
      class="text-left font-semibold"
      draggable={what !== 'circuit' && what !== 'socket'}
      ondragstart={() => cords.holdFeed(node)}
      ondragend={() => cords.letGo()}
      aria-expanded={cords.open === node.feed.id}
      onclick={() => (cords.open = cords.open === node.feed.id ? undefined : node.feed.id)}
      >{node.feed.name}</button
    >
    {#if figures}
      <span class="text-sm" class:text-wine={over} class:font-semibold={over}>{figures}</span>
    {/if}
  </div>
  {#if node.feeds.length + node.bunches.length > 0}
    <ul class="mt-1 ml-3 flex flex-col gap-1 border-l border-frame">
      {#each node.feeds as child (child.feed.id)}<Cord node={child} />{/each}
      {#each node.bunches as bunch (bunch.at + bunch.name)}
        <li class="relative pl-4">
          <span class="absolute top-3 left-0 h-px w-4 bg-frame"></span>
          <button
            class="cursor-grab rounded px-1 text-left text-sm hover:bg-sage-soft"
            draggable="true"
            ondragstart={() => cords.holdBunch(bunch)}
            ondragend={() => cords.letGo()}
            onclick={() => cords.pick(bunch)}
            aria-expanded={cords.isPicked(bunch)}
            >{bunch.devices.length > 1
              ? `${bunch.devices.length} × `
              : ''}{bunch.name}{#if bunch.at}<span class="ml-1 text-soft">({bunch.at})</span
              >{/if}</button
          >
        </li>
      {/each}
    </ul>
  {/if}
</li>
