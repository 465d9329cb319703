<script lang="ts">
  // The day's light on every cell, seen from above: the front of the shelf is at the bottom. While
  // nothing burns yet, the light that the lamps would give.
  import { bandEdge, shade } from './contour';
  import { direction } from '../../../fields/slider';
  import type { BayOnDay, PartOnDay, Place } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';
  import Probe from './Probe.svelte';

  interface Props {
    bay: BayOnDay;
    place: Place;
  }
  const { bay, place }: Props = $props();

  const lamps = $derived((bay.light?.ppfd.best ?? 0) > 0);
  let width = $state(0);
  const words = $derived(bench.words);
  // The deck, and whatever hangs over its edges.
  const edges = $derived({
    left: Math.min(0, ...bay.trays.map((tray) => tray.x_mm[0]!)),
    right: Math.max(place.width_mm, ...bay.trays.map((tray) => tray.x_mm[1]!)),
    front: Math.min(0, ...bay.trays.map((tray) => tray.y_mm[0]!)),
    back: Math.max(place.depth_mm, ...bay.trays.map((tray) => tray.y_mm[1]!)),
  });
  const scale = $derived(width / (edges.right - edges.left));
  const height = $derived((edges.back - edges.front) * scale);
  const px = $derived((x: number) => (x - edges.left) * scale);
  /** The back is at the top. */
  const py = $derived((y: number) => (edges.back - y) * scale);
  const daily = $derived((bay.light?.dli.best ?? 0) > 0);
  const quantity = $derived(daily ? 'dli_mol_m2_d' : 'ppfd_umol_m2_s');
  const light = $derived(daily ? bay.light?.dli : bay.light?.ppfd);
  const valuesOf = $derived(
    (part: PartOnDay) => (daily ? part.cells?.dli : part.cells?.ppfd) ?? [],
  );
  const most = $derived(Math.max(light?.best ?? 1, 1));

  const colour = (value: number) => shade(value / most);

  const cells = $derived(
    bay.trays.flatMap((tray) =>
      tray.parts.flatMap((part, p) => {
        const w = (part.x_mm[1]! - part.x_mm[0]!) / part.columns;
        const d = (part.y_mm[1]! - part.y_mm[0]!) / part.rows;
        return valuesOf(part).map((value, i) => ({
          key: `${tray.tray}-${p}-${i}`,
          x: px(part.x_mm[0]! + (i % part.columns) * w),
          y: py(part.y_mm[0]! + (Math.floor(i / part.columns) + 1) * d),
          w: w * scale,
          d: d * scale,
          fill: colour(value),
        }));
      }),
    ),
  );
  /** Where cells within their crop's band border on others: the edge of the band. */
  const contour = $derived(
    daily && bay.light?.target
      ? bay.trays
          .flatMap((tray) => tray.parts)
          .filter((part) => part.stage === 'grow')
          .map((part) => bandEdge(part, part.cells?.dli ?? [], px, py))
          .join('')
      : '',
  );
  /** Cells that a finding names: they stretch or bleach. */
  const harmed = $derived(
    bench.findings(bay.bay).flatMap((finding) => finding.cells.map((cell) => at(cell))),
  );

  /** Where a lux meter is held, in mm on the deck. */
  let probe: { x_mm: number; y_mm: number } | undefined = $state();
  const clampTo = (value: number, most: number) => Math.min(Math.max(value, 0), most);
  function hold(event: MouseEvent) {
    const box = (event.currentTarget as Element).getBoundingClientRect();
    probe = {
      x_mm: clampTo(edges.left + (event.clientX - box.left) / scale, place.width_mm),
      y_mm: clampTo(edges.back - (event.clientY - box.top) / scale, place.depth_mm),
    };
  }
  function step(event: KeyboardEvent) {
    const STEP_MM = 20;
    const by = direction(event);
    const middle = { x_mm: place.width_mm / 2, y_mm: place.depth_mm / 2 };
    if (event.key === 'Enter' || event.key === ' ') probe ??= middle;
    else if (by) {
      const from = probe ?? middle;
      probe = {
        x_mm: clampTo(from.x_mm + by.x * STEP_MM, place.width_mm),
        y_mm: clampTo(from.y_mm + by.y * STEP_MM, place.depth_mm),
      };
    } else return;
    event.preventDefault();
    event.stopPropagation();
  }
  const at = $derived((cell: { x_mm: number; y_mm: number }) => ({
    x: px(cell.x_mm),
    y: py(cell.y_mm),
  }));
</script>

<div bind:clientWidth={width}>
  {#if width > 0 && bay.light}
    {@const worst = at(bay.light.worst)}
    {@const best = at(bay.light.best)}
    <svg
      {width}
      {height}
      role="button"
      tabindex="0"
      aria-label="Light map from above: best cell {words.number(
        light?.best ?? 0,
        quantity,
      )} in tray {bay.trays.find((t) => t.tray === bay.light?.best.tray)
        ?.label}, worst {words.number(light?.worst ?? 0, quantity)} in tray {bay.trays.find(
        (t) => t.tray === bay.light?.worst.tray,
      )?.label}. Hold a lux meter here"
      class="block cursor-crosshair overflow-visible rounded-md"
      onclick={hold}
      onkeydown={step}
    >
      <rect
        x={px(0)}
        y={py(place.depth_mm)}
        width={place.width_mm * scale}
        height={place.depth_mm * scale}
        rx="4"
        fill="var(--line)"
        opacity="0.5"
      />
      {#each cells as cell (cell.key)}
        <rect x={cell.x} y={cell.y} width={cell.w + 0.4} height={cell.d + 0.4} fill={cell.fill} />
      {/each}
      <path d={contour} fill="none" stroke="#23283a" stroke-width="3" stroke-linecap="square" />
      <path d={contour} fill="none" stroke="#ffffff" stroke-width="1.4" stroke-linecap="square" />
      {#each bay.trays as tray (tray.tray)}
        {@const x = px(tray.x_mm[0]!)}
        {@const y = py(tray.y_mm[1]!)}
        <rect
          {x}
          {y}
          width={(tray.x_mm[1]! - tray.x_mm[0]!) * scale}
          height={(tray.y_mm[1]! - tray.y_mm[0]!) * scale}
          rx="3"
          fill="none"
          stroke="var(--ink)"
          stroke-width="1.5"
        />
        <g transform="translate({x + 5} {y + 4})">
          <rect
            width={tray.label.length * 8.4 + 8}
            height="19"
            rx="4"
            fill="var(--raised)"
            opacity="0.92"
          />
          <text x="4" y="14.5" font-size="14" font-weight="600" fill="var(--ink)">{tray.label}</text
          >
        </g>
      {/each}
      {#each harmed as cell, i (i)}
        <path d="M{cell.x - 3} {cell.y + 3}l6 -6" stroke="#23283a" stroke-width="3.4" />
        <path d="M{cell.x - 3} {cell.y + 3}l6 -6" stroke="#ffffff" stroke-width="1.6" />
      {/each}
      <!-- Best: a ring. Worst: a cross. -->
      <circle cx={best.x} cy={best.y} r="7" fill="none" stroke="#ffffff" stroke-width="5" />
      <circle cx={best.x} cy={best.y} r="7" fill="none" stroke="#23283a" stroke-width="2.2" />
      {#each [{ stroke: '#ffffff', size: 5.5 }, { stroke: '#23283a', size: 2.4 }] as { stroke, size } (stroke)}
        <path
          d="M{worst.x - 5} {worst.y - 5}l10 10m0 -10l-10 10"
          {stroke}
          stroke-width={size}
          stroke-linecap="round"
        />
      {/each}
      {#if probe && lamps}
        {@const spot = at(probe)}
        {#each [{ stroke: '#ffffff', size: 4.5 }, { stroke: '#23283a', size: 2 }] as { stroke, size } (stroke)}
          <path
            d="M{spot.x - 11} {spot.y}h7m8 0h7M{spot.x} {spot.y - 11}v7m0 8v7"
            {stroke}
            stroke-width={size}
          />
        {/each}
      {/if}
    </svg>
    <p class="mt-1 flex justify-between text-sm text-soft">
      <span>✕ darkest {words.bare(light?.worst ?? 0, quantity)}</span>
      <span>average {words.bare(light?.mean ?? 0, quantity)}</span>
      <span>○ brightest {words.number(light?.best ?? 0, quantity)}</span>
    </p>
    <p class="text-sm text-soft">
      {#if contour}The white line runs along the edge of the right range.{/if}
      {#if harmed.length > 0}Slashed cells stretch or bleach.{/if}
      {#if lamps}Tap a spot to hold a lux meter there.{/if}
    </p>
    {#if probe && lamps}<Probe {bay} at={probe} />{/if}
  {/if}
</div>
