<script lang="ts">
  import { bench } from '../workbench.svelte';
  import Bay from './Bay.svelte';
  import { elevation, RULER_PX } from './geometry';
  import Ledger from './Ledger.svelte';

  const LEDGER_PX = 320;

  let width = $state(0);
  let height = $state(0);
  const words = $derived(bench.words);
  const racks = $derived(bench.racks);
  const ledger = $derived(width > 700);
  const view = $derived(
    elevation(racks, ledger ? width - LEDGER_PX : width, Math.max(height, 320)),
  );
  const bayOf = $derived((place: string, tier: string) =>
    bench.room?.bays.find((b) => b.bay.place === place && b.bay.tier === tier),
  );

  // Marks every ten shown units: 10 cm, or 10 inches.
  const marks = $derived.by(() => {
    const { factor } = words.unit('length_mm');
    const step = 10 / factor;
    const count = Math.floor(view.tallest / step);
    const every = [1, 2, 5, 10].find((n) => n * step * view.scale > 70) ?? 20;
    return Array.from({ length: count + 1 }, (_, i) => ({
      mm: i * step,
      label: i % every === 0 ? String(i * 10) : '',
    }));
  });
</script>

<div
  class="relative min-h-80 grow overflow-x-auto overflow-y-hidden"
  bind:clientWidth={width}
  bind:clientHeight={height}
>
  {#if racks.length === 0}
    <p class="p-6 text-soft">
      No rack stands in this room yet. Open a plan file that holds one, in Setup.
    </p>
  {:else if width > 0}
    <svg
      {width}
      height={view.floor + 34}
      class="block select-none"
      role="group"
      aria-label="The room from the front"
    >
      <defs>
        <linearGradient id="lamp-glow" x2="0" y2="1">
          <stop offset="0" stop-color="var(--straw)" stop-opacity="0.85" />
          <stop offset="1" stop-color="var(--straw)" stop-opacity="0.12" />
        </linearGradient>
      </defs>

      <g aria-hidden="true" font-size="14" fill="var(--soft)">
        <text x="4" y={view.y(view.tallest) + 4}>{words.unit('length_mm').unit}</text>
        {#each marks as mark (mark.mm)}
          <line
            x1={RULER_PX - (mark.label ? 14 : 8)}
            x2={RULER_PX - 2}
            y1={view.y(mark.mm)}
            y2={view.y(mark.mm)}
            stroke="var(--frame)"
          />
          {#if mark.label}
            <text x={RULER_PX - 18} y={view.y(mark.mm) + 5} text-anchor="end">{mark.label}</text>
          {/if}
        {/each}
        <line
          x1={RULER_PX - 2}
          x2={RULER_PX - 2}
          y1={view.y(view.tallest)}
          y2={view.floor}
          stroke="var(--frame)"
        />
      </g>

      {#each racks as rack, r (rack.id)}
        {@const left = view.lefts[r] ?? 0}
        {@const right = left + rack.width_mm * view.scale}
        <g aria-hidden="true">
          {#each [left, right] as post (post)}
            <line
              x1={post}
              x2={post}
              y1={view.y(rack.height_mm)}
              y2={view.floor}
              stroke="var(--frame)"
              stroke-width="5"
              stroke-linecap="round"
            />
          {/each}
          {#each rack.tiers as tier (tier.id)}
            {@const y = view.y(tier.deck_height_mm)}
            {@const thick = Math.max(rack.deck_thickness_mm * view.scale, 4)}
            {#if rack.deck === 'wire'}
              <path
                d="M{left} {y + 1}H{right}M{left} {y + thick}H{right}"
                stroke="var(--frame)"
                stroke-width="1.6"
              />
              <path
                d="M{left} {y + thick / 2 + 0.5}H{right}"
                stroke="var(--frame)"
                stroke-width={thick - 1}
                stroke-dasharray="1.2 7"
              />
            {:else}
              <rect x={left} {y} width={right - left} height={thick} fill="var(--frame)" />
            {/if}
          {/each}
          <text
            x={left}
            y={view.floor + 24}
            font-size="16"
            font-weight="650"
            fill="var(--ink)"
            class="font-display">{rack.name}, {rack.deck === 'wire' ? 'wire' : 'solid deck'}</text
          >
        </g>
        {#each rack.tiers as tier (tier.id)}
          {@const bay = bayOf(rack.id, tier.id)}
          {#if bay}
            <Bay {rack} {tier} {bay} {left} {view} />
          {/if}
        {/each}
      {/each}
      <line
        x1={RULER_PX - 14}
        x2={Math.max(view.right + 10, RULER_PX)}
        y1={view.floor}
        y2={view.floor}
        stroke="var(--ink)"
        stroke-width="1.6"
        aria-hidden="true"
      />
    </svg>
    {#if ledger}
      {#each racks.slice(-1) as rack (rack.id)}
        {#each rack.tiers as tier (tier.id)}
          {@const bay = bayOf(rack.id, tier.id)}
          {#if bay}
            {@const top = view.y(tier.deck_height_mm + bay.clear_height_mm)}
            <Ledger
              {bay}
              storage={tier.storage}
              {top}
              height={view.y(tier.deck_height_mm) - top}
              left={view.right + 14}
            />
          {/if}
        {/each}
      {/each}
    {/if}
  {/if}
</div>
