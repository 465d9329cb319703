<script lang="ts">
  import { untrack } from 'svelte';
  import { direction } from '$lib/fields/slider';
  import Legend from '$lib/room/canvas/Legend.svelte';
  import Room from '$lib/room/canvas/Room.svelte';
  import Carried from '$lib/room/Carried.svelte';
  import Shelf from '$lib/room/build/Shelf.svelte';
  import { build } from '$lib/room/build/actions';
  import { stage } from '$lib/room/canvas/stage.svelte';
  import TrayShelf from '$lib/room/trays/TrayShelf.svelte';
  import Week from '$lib/room/whole/Week.svelte';
  import Part from '$lib/shell/Part.svelte';
  import { keyHeight, nudgeHeight } from '$lib/room/canvas/lamps';
  import BaySheet from '$lib/room/bay/BaySheet.svelte';
  import PickSheet from '$lib/room/whole/PickSheet.svelte';
  import PlaceSheet from '$lib/room/place/PlaceSheet.svelte';
  import RoomSheet from '$lib/room/whole/RoomSheet.svelte';
  import { cords } from '$lib/power/cords.svelte';
  import { bench } from '$lib/bench/workbench.svelte';

  let sheet: HTMLElement | undefined = $state();

  // A sheet opens at its top, and where it lies below the room, as on a phone, it comes into sight.
  $effect(() => {
    const picked = bench.hand.selected ?? bench.hand.place;
    sheet?.scrollTo(0, 0);
    if (picked && innerWidth < 1024 && !untrack(() => bench.building))
      sheet?.scrollIntoView({ block: 'start', behavior: 'smooth' });
  });

  // Arrow keys nudge the selected bay's lamps wherever the focus is, unless something nearer
  // takes them.
  function arrow(event: KeyboardEvent) {
    const bay = bench.bay;
    const target = event.target as Element;
    if (event.defaultPrevented || target.closest('input, textarea, select, dialog, [role=slider]'))
      return;
    const by = direction(event);
    if (event.shiftKey && by && (by.x || !bay)) {
      event.preventDefault();
      stage.panBy(-60 * by.x, 60 * by.y);
      return;
    }
    if (!bay) return;
    const place = bench.places.find((p) => p.id === bay.bay.place);
    const lamps = place?.tiers.find((t) => t.id === bay.bay.tier)?.lamps ?? [];
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
<Carried />
<div class="flex min-h-0 grow max-lg:flex-col">
  <div class="flex min-h-0 min-w-0 grow flex-col">
    <div
      id="stage"
      tabindex="-1"
      class="relative flex min-h-96 grow pt-2 outline-none"
      role="region"
      aria-label="The room"
    >
      <Part what="the drawing of the room"><Room /></Part>
      <div class="absolute top-3 right-3 flex gap-1 rounded-lg bg-raised/90 p-0.5">
        <button
          class="quiet"
          aria-label="Zoom out"
          title="Further away (-)"
          onclick={() => stage.zoomBy(0.8)}>−</button
        >
        <button
          class="quiet"
          aria-label="Zoom in"
          title="Nearer (+)"
          onclick={() => stage.zoomBy(1.25)}>+</button
        >
        <button
          class="quiet"
          title="The whole room, and back (0)"
          onclick={() => stage.toggleWhole()}>Whole room</button
        >
        <button
          class="quiet"
          class:bg-straw-soft!={cords.drawn}
          aria-pressed={cords.drawn}
          title="Sockets, strips, timers and their cords; drag a plug to where it is to go"
          onclick={() => (cords.drawn = !cords.drawn)}>Cords</button
        >
        {#if bench.building}
          <button
            class="quiet"
            class:bg-straw-soft!={bench.hand.pickingMore}
            aria-pressed={bench.hand.pickingMore}
            title="Each tap selects one more thing"
            onclick={() => (bench.hand.pickingMore = !bench.hand.pickingMore)}
            >Select several</button
          >
        {/if}
        <button
          class="quiet border-frame! font-semibold"
          class:bg-straw-soft!={bench.building}
          aria-pressed={bench.building}
          title="Drag sizes and shelves, add things (b)"
          onclick={() => build()}>Build <kbd class="max-sm:hidden">b</kbd></button
        >
      </div>
    </div>
    {#if !bench.building && bench.places.length > 0}<Legend />{/if}
    {#if bench.building}<Shelf />{:else}<TrayShelf /><Week />{/if}
  </div>
  <aside
    id="sheet"
    data-sheet
    bind:this={sheet}
    class="card m-3 mt-2 w-[25rem] shrink-0 overflow-y-auto p-4 max-lg:w-auto lg:ml-0"
    aria-label="Panel"
    tabindex="-1"
  >
    {#if bench.bay}
      {@const bay = bench.bay}
      <!-- Another bay gets a sheet of its own, whatever became of this one. -->
      {#key `${bay.bay.place}/${bay.bay.tier}`}
        <Part what="this sheet"><BaySheet {bay} /></Part>
      {/key}
    {:else if bench.place}
      {@const place = bench.place}
      {#key place.id}
        <Part what="this sheet"><PlaceSheet {place} onDay={bench.placeOnDay} /></Part>
      {/key}
    {:else if bench.hand.picked.length > 1}
      <Part what="this sheet"><PickSheet /></Part>
    {:else}
      <Part what="this sheet"><RoomSheet /></Part>
    {/if}
  </aside>
</div>
