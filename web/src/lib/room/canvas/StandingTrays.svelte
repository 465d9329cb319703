<script lang="ts">
  // The trays of a bay from the front, with their domes, boxes, labels and what grows in them.
  import type { TrayOnDay } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';
  import Seedlings from './Seedlings.svelte';
  import { slides, stands } from './slides';

  interface Props {
    /** Those at the back first: front trays hide them. */
    trays: TrayOnDay[];
    left: number;
    mm: (length: number) => number;
    up: (height: number) => number;
    deck: number;
  }
  const { trays, left, mm, up, deck }: Props = $props();

  const pinned = $derived(
    new Set(bench.draft?.trays.filter((tray) => tray.pinned).map((tray) => tray.id)),
  );
  const isPinned = $derived((id: string) => pinned.has(id));

  /** A tray narrower than this shows no label, and its plants as one patch of green. */
  const SMALL_PX = 30;
</script>

{#each trays as tray (tray.tray)}
  {@const x = left + mm(tray.x_mm[0]!)}
  {@const long = mm(tray.x_mm[1]! - tray.x_mm[0]!)}
  <g in:slides={tray.tray} use:stands={tray.tray}>
    {#each tray.parts as part, i (i)}
      {@const from = left + mm(part.x_mm[0]!)}
      {@const wide = mm(part.x_mm[1]! - part.x_mm[0]!)}
      {#if part.plant_height_mm > 0 && long > SMALL_PX}
        <Seedlings
          habit={part.habit}
          x={from + 1}
          width={wide - 2}
          y={up(tray.rim_mm)}
          height={mm(part.plant_height_mm)}
          spread={part.plant ? mm(part.plant.spread_mm) : undefined}
          stretched={part.plant?.stretched ?? 1}
          count={Math.min(part.columns, Math.max(1, Math.floor(wide / 12)))}
        />
      {:else if part.plant_height_mm > 0}
        {@const tall = Math.max(mm(part.plant_height_mm), 2)}
        <rect
          x={from}
          y={up(tray.rim_mm) - tall}
          width={wide}
          height={tall}
          fill="var(--sage)"
          opacity="0.7"
        />
      {/if}
    {/each}
    {#if tray.dome_mm != null}
      {@const dome = mm(tray.dome_mm)}
      <path
        d="M{x + 1} {up(tray.rim_mm)}l{Math.min(long * 0.06, 8)} {-dome}h{long -
          2 -
          2 * Math.min(long * 0.06, 8)}l{Math.min(long * 0.06, 8)} {dome}z"
        fill="var(--teal-soft)"
        fill-opacity="0.45"
        stroke="var(--teal)"
        stroke-width="1.2"
      />
    {/if}
    <path
      d="M{x} {up(tray.rim_mm)}h{long}l{-mm(8)} {mm(tray.rim_mm - tray.lift_mm)}h{-(
        long - mm(16)
      )}z"
      fill="var(--mix)"
    />
    {#if tray.lift_mm > 0}
      <rect
        x={x + mm(20)}
        y={up(tray.lift_mm)}
        width={Math.max(long - mm(40), 1)}
        height={mm(tray.lift_mm)}
        fill="none"
        stroke="var(--soft)"
        stroke-width="1.2"
      />
    {/if}
    {#if isPinned(tray.tray)}
      <circle
        cx={x + long - 9}
        cy={up(tray.rim_mm) + 7}
        r="3.5"
        fill="var(--coral)"
        stroke="var(--on-mix)"
        stroke-width="1.2"><title>{tray.label} is pinned here</title></circle
      >
    {/if}
    {#if long > SMALL_PX}
      <text
        x={x + long / 2}
        y={Math.min(up((tray.rim_mm + tray.lift_mm) / 2) + 5, deck - 1)}
        text-anchor="middle"
        font-size="14"
        font-weight="600"
        fill="var(--on-mix)"
        stroke="var(--mix)"
        stroke-width="3"
        paint-order="stroke">{tray.label}</text
      >
    {/if}
  </g>
{/each}
