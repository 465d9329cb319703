<script lang="ts">
  import Room from '$lib/room/Room.svelte';
  import Week from '$lib/room/Week.svelte';
  import { keyHeight, nudgeHeight } from '$lib/room/lamps';
  import BaySheet from '$lib/sheet/BaySheet.svelte';
  import RoomSheet from '$lib/sheet/RoomSheet.svelte';
  import { bench } from '$lib/workbench.svelte';

  // Arrow keys nudge the selected bay's lamps wherever the focus is, unless something nearer
  // takes them.
  function arrow(event: KeyboardEvent) {
    const bay = bench.bay;
    const target = event.target as Element;
    if (!bay || event.defaultPrevented || target.closest('input, textarea, dialog, [role=slider]'))
      return;
    const rack = bench.racks.find((r) => r.id === bay.bay.place);
    const lamps = rack?.tiers.find((t) => t.id === bay.bay.tier)?.lamps ?? [];
    const first = lamps[0];
    if (!first) return;
    const height = keyHeight(event, first.height_mm, bay, bench.words);
    if (height === undefined) return;
    event.preventDefault();
    if (height !== first.height_mm)
      nudgeHeight(
        bay,
        lamps.map((_, i) => i),
        height,
      );
  }
</script>

<svelte:window onkeydown={arrow} />
<svelte:head><title>Room · Faint Sunrise</title></svelte:head>

<h1 class="sr-only">Room</h1>
<div class="flex min-h-0 grow max-lg:flex-col">
  <div class="flex min-h-0 min-w-0 grow flex-col">
    <div class="flex min-h-96 grow px-2 pt-2"><Room /></div>
    <Week />
  </div>
  <aside
    class="card m-3 mt-2 w-[25rem] shrink-0 overflow-y-auto p-4 max-lg:w-auto lg:ml-0"
    aria-label="Sheet"
    tabindex="-1"
  >
    {#if bench.bay}
      <BaySheet bay={bench.bay} />
    {:else}
      <RoomSheet />
    {/if}
  </aside>
</div>
