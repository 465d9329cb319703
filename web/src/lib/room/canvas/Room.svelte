<script lang="ts">
  import { untrack } from 'svelte';
  import { bench } from '../../bench/workbench.svelte';
  import CordSketch from '../../power/CordSketch.svelte';
  import { cords } from '../../power/cords.svelte';
  import Bay from './Bay.svelte';
  import Frame from './Frame.svelte';
  import { BELOW_PX, row } from './geometry';
  import Handles from '../build/Handles.svelte';
  import { build } from '../build/actions';
  import Rulers from './Rulers.svelte';
  import { remember } from './slides';
  import { stage } from './stage.svelte';

  /** A press that moves further than this is a drag, not a tap. */
  const TAP_PX = 5;
  const WHEEL_ZOOM = 0.0016;

  let width = $state(0);
  let height = $state(0);
  const places = $derived(bench.places);
  const all = $derived(row(places));
  const scale = $derived(stage.scale);
  const floor = $derived(all.tallest * scale);
  const up = $derived((mm: number) => floor - mm * scale);
  const bays = $derived(new Map(bench.room?.bays.map((b) => [`${b.bay.place}/${b.bay.tier}`, b])));

  /** Whether a place is in sight or near it: what grows in the others is not drawn. */
  const isNear = $derived((left_mm: number, width_mm: number) => {
    const left = stage.x + left_mm * stage.shown;
    return left < 1.5 * stage.width && left + width_mm * stage.shown > -0.5 * stage.width;
  });

  /** A sheet as large as the drawing, through which a hand reaches what lies under it. */
  const sheet = $derived({
    class: 'pointer-events-none absolute inset-0 isolate overflow-visible',
    width: all.width * scale,
    height: floor + BELOW_PX,
  });

  let drawnOn: string | undefined;
  $effect.pre(() => {
    const date = bench.room?.date;
    if (date === drawnOn) return;
    drawnOn = date;
    remember();
  });

  $effect(() => {
    const [row, w, h] = [all, width, height];
    untrack(() => stage.resize(row, w, h));
  });

  // What was picked by a key, by search or by an edit comes into sight.
  $effect(() => {
    const [only] = bench.hand.picked;
    const index = places.findIndex((place) => place.id === only?.place);
    const left = all.lefts[index];
    const right = (left ?? 0) + (places[index]?.width_mm ?? 0);
    if (bench.hand.picked.length === 1 && left !== undefined && width > 0)
      untrack(() => stage.reveal(left, right));
  });

  // eslint-disable-next-line svelte/prefer-svelte-reactivity -- nothing is drawn from it
  const pointers = new Map<number, { x: number; y: number }>();
  let moved = false;

  function spread() {
    const [a, b] = [...pointers.values()];
    return a && b
      ? { size: Math.hypot(a.x - b.x, a.y - b.y), x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }
      : undefined;
  }

  function down(event: PointerEvent) {
    if ((event.target as Element).closest('[data-grab]')) return;
    if (pointers.size === 0) moved = false;
    pointers.set(event.pointerId, { x: event.clientX, y: event.clientY });
  }

  function move(event: PointerEvent) {
    const last = pointers.get(event.pointerId);
    if (!last) return;
    const dx = event.clientX - last.x;
    const dy = event.clientY - last.y;
    if (!moved && pointers.size === 1 && Math.hypot(dx, dy) < TAP_PX) return;
    if (!moved) {
      moved = true;
      (event.currentTarget as Element).setPointerCapture(event.pointerId);
    }
    const before = spread();
    pointers.set(event.pointerId, { x: event.clientX, y: event.clientY });
    const after = spread();
    if (before && after) {
      const box = (event.currentTarget as Element).getBoundingClientRect();
      stage.panBy(after.x - before.x, after.y - before.y);
      stage.zoomBy(after.size / Math.max(before.size, 1), after.x - box.x, after.y - box.y);
    } else {
      stage.panBy(dx, dy);
    }
  }

  function release(event: PointerEvent) {
    pointers.delete(event.pointerId);
  }

  /** The click that ends a drag picks nothing. */
  function click(event: MouseEvent) {
    if (!moved) return;
    moved = false;
    event.stopPropagation();
    event.preventDefault();
  }

  function wheel(event: WheelEvent) {
    event.preventDefault();
    const box = (event.currentTarget as Element).getBoundingClientRect();
    const lines = event.deltaMode === WheelEvent.DOM_DELTA_LINE ? 16 : 1;
    const sideways = event.shiftKey ? event.deltaX || event.deltaY : event.deltaX;
    if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
      stage.panBy(-sideways * lines, 0);
    } else {
      const by = Math.exp(-event.deltaY * lines * WHEEL_ZOOM);
      stage.zoomBy(by, event.clientX - box.x, event.clientY - box.y);
    }
  }

  /** Svelte's own wheel listeners may not prevent the page from scrolling. */
  function wheeled(node: HTMLElement) {
    node.addEventListener('wheel', wheel, { passive: false });
    return () => node.removeEventListener('wheel', wheel);
  }

  function place(thing: { place: string }, event: MouseEvent | KeyboardEvent) {
    bench.pick({ place: thing.place }, event.shiftKey);
  }
</script>

<!-- The places and bays in it are the controls; this only moves the view. -->
<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
  class="relative flex min-h-80 grow cursor-grab touch-pan-y overflow-hidden select-none active:cursor-grabbing"
  data-testid="stage"
  bind:clientWidth={width}
  bind:clientHeight={height}
  onpointerdown={down}
  onpointermove={move}
  onpointerup={release}
  onpointercancel={release}
  onclickcapture={click}
  {@attach wheeled}
>
  {#if places.length === 0}
    <div class="m-auto max-w-sm p-6 text-center text-soft">
      {#if !bench.starting}
        <p>This room is empty. Add your first rack, chamber or bench, or be led through it.</p>
        <p class="mt-3 flex justify-center gap-2">
          <button class="quiet border-frame! font-semibold" onclick={() => build()}>Build</button>
          <a class="quiet border-frame!" href="/start">Guided start</a>
        </p>
      {:else}
        <p>Your corner is still empty.</p>
      {/if}
    </div>
  {:else if width > 0}
    <!-- The layer that moves is a box around the drawing: a transform on the drawing itself would
         have all of it laid out again in every frame. -->
    <div
      class="absolute top-0 left-0 will-change-transform"
      style:transform-origin="0 0"
      style:transform="translate({Math.round(stage.x)}px, {Math.round(
        stage.floor - floor * stage.live,
      )}px) scale({stage.live})"
    >
      <div
        class="relative"
        style:width="{all.width * scale}px"
        style:height="{floor + BELOW_PX}px"
        role="group"
        aria-label="The room from the front"
      >
        <svg {...sheet}>
          <defs>
            <linearGradient id="lamp-glow" x2="0" y2="1">
              <stop offset="0" stop-color="var(--straw)" stop-opacity="0.85" />
              <stop offset="1" stop-color="var(--straw)" stop-opacity="0.12" />
            </linearGradient>
          </defs>
          <line
            x1="0"
            x2={all.width * scale}
            y1={floor}
            y2={floor}
            stroke="var(--ink)"
            stroke-width="1.6"
            aria-hidden="true"
          />
        </svg>
        <!-- Each place on a sheet of its own: what changes in one is painted anew, and not the others. -->
        {#each places as item, i (item.id)}
          {@const left = (all.lefts[i] ?? 0) * scale}
          {@const drawn = isNear(all.lefts[i] ?? 0, item.width_mm)}
          <svg {...sheet}>
            <g class="pointer-events-auto">
              <Frame
                place={item}
                {left}
                {scale}
                {up}
                onpick={(event) => place({ place: item.id }, event)}
              />
              {#each item.tiers as tier (tier.id)}
                {@const bay = bays.get(`${item.id}/${tier.id}`)}
                {#if bay}
                  <Bay place={item} {tier} {bay} {left} {scale} {up} {drawn} />
                {/if}
              {/each}
              {#if bench.building}
                <Handles place={item} index={i} {left} {scale} {up} {all} />
              {/if}
            </g>
          </svg>
        {/each}
        {#if cords.drawn}
          <svg {...sheet}>
            <g class="pointer-events-auto"><CordSketch {all} {scale} {up} /></g>
          </svg>
        {/if}
      </div>
    </div>
    <Rulers {all} />
  {/if}
</div>
