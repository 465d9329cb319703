<script lang="ts">
  // A chamber in section: its air from shelf to shelf, and which crops come up best on which.
  import { scaleLinear } from 'd3-scale';
  import type { BayOnDay, Place } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';
  import ChamberWays from './ChamberWays.svelte';
  import WhyNote from '../../../finding/WhyNote.svelte';

  const { bay, place }: { bay: BayOnDay; place: Place } = $props();

  const air = $derived(bay.detail!.chamber!);
  const tier = $derived(bay.bay.tier);

  const WIDTH = 92;
  const ROW = 46;
  const words = $derived(bench.words);
  const day = $derived(air.day);
  const height = $derived(day.shelves.length * ROW);
  const coolest = $derived(Math.min(...day.shelves.map((s) => s.mean_c)));
  const warmest = $derived(Math.max(...day.shelves.map((s) => s.mean_c)));
  /** From pale to full teal: the cooler, the paler. */
  const tint = $derived(scaleLinear([coolest - 0.5, warmest + 0.01], [0.12, 0.75]));
  const humidity = $derived(
    day.shelves.reduce((sum, shelf) => sum + shelf.mean_humidity, 0) / day.shelves.length,
  );
  /** The highest shelf first, as one stands before it. */
  const rows = $derived(
    day.shelves
      .map((shelf, i) => ({
        shelf,
        tier: place.tiers[air.first_tier + i]!,
        crops: air.suits[i]!,
        y: (day.shelves.length - 1 - i) * ROW,
      }))
      .reverse(),
  );
  const probeY = $derived.by(() => {
    if (air.probe_mm == null) return undefined;
    const above = day.shelves.filter((s) => s.at_mm <= air.probe_mm!).length;
    return (day.shelves.length - above) * ROW + ROW / 2;
  });
</script>

<div class="flex gap-3" data-testid="chamber">
  <svg
    width={WIDTH}
    {height}
    class="shrink-0"
    role="img"
    aria-label="Air of the chamber from bottom to top: {day.shelves
      .map((s) => words.number(s.mean_c, 'temperature_c'))
      .join(', ')}"
  >
    {#each rows as row (row.tier.id)}
      <rect
        x="3"
        y={row.y}
        width={WIDTH - 6}
        height={ROW}
        fill="var(--teal)"
        opacity={tint(row.shelf.mean_c)}
      />
      <line
        x1="3"
        x2={WIDTH - 3}
        y1={row.y + ROW - 1}
        y2={row.y + ROW - 1}
        stroke="var(--ink)"
        stroke-width={row.tier.id === tier ? 4 : 1.2}
      />
      <rect
        x="10"
        y={row.y + 11}
        width={WIDTH - 20}
        height="22"
        rx="5"
        fill="var(--raised)"
        opacity="0.94"
      />
      <text
        x={WIDTH / 2}
        y={row.y + 27}
        text-anchor="middle"
        font-size="14"
        font-weight="600"
        fill="var(--ink)">{words.number(row.shelf.mean_c, 'temperature_c')}</text
      >
    {/each}
    <rect
      x="1.5"
      y="1.5"
      width={WIDTH - 3}
      height={height - 3}
      fill="none"
      stroke="var(--frame)"
      stroke-width="3"
    />
    {#if probeY !== undefined}
      <path
        d="M{WIDTH - 14} 2V{probeY}"
        stroke="var(--coral)"
        stroke-width="1.5"
        stroke-dasharray="3 3"
      />
      <circle cx={WIDTH - 14} cy={probeY} r="4.5" fill="var(--coral)" />
    {/if}
  </svg>
  <ul class="min-w-0">
    {#each rows as row (row.tier.id)}
      <li class="flex flex-col justify-center text-sm" style="height: {ROW}px">
        <span class:font-semibold={row.tier.id === tier}
          >{row.tier.name}, {words.bare(row.shelf.least_c, 'temperature_c')} to {words.number(
            row.shelf.most_c,
            'temperature_c',
          )}</span
        >
        <span class="truncate text-soft" title={row.crops.join(', ')}>{row.crops.join(', ')}</span>
      </li>
    {/each}
  </ul>
</div>
<ul class="mt-1 text-sm" data-testid="chamber-day">
  <li>
    Its air is at {words.number(humidity, 'share')} humidity{#if day.gives_off_l >= 0.05}; trays
      give off {words.number(day.gives_off_l * 1000, 'volume_ml')} of water a day{#if day.dew_l >= 0.05},
        of which {words.number(day.dew_l * 1000, 'volume_ml')} run down its walls{/if}{/if}
  </li>
  <li>
    {words.number(day.kwh_per_day, 'energy_kwh')} a day, {words.number(day.cost_per_day, 'money')};
    {#if day.duty > 0}the mats are on for {words.number(day.duty, 'share')} of it{/if}
    <WhyNote of="air" why={air.why} />
  </li>
  <li>
    The vents let {words.number(day.vents_m3_h, 'flow_m3_h')} through{#if air.probe_mm != null}; the
      coral dot is the thermostat’s probe{/if}
  </li>
  {#if !day.reaches}<li class="text-wine">The thermostat cannot hold its setting.</li>{/if}
  {#if day.overheats}<li class="text-wine">
      Too hot for seed and seedlings: past the limit of {words.number(
        air.limit_c,
        'temperature_c',
      )}: too hot for seed and seedlings.
    </li>{/if}
  {#each day.helps as help, i (i)}
    <li>
      {words.say(help.what)}: {words.number(help.mean_c, 'temperature_c')} on the mean, {words.number(
        help.most_c,
        'temperature_c',
      )} at the most
    </li>
  {/each}
</ul>
<ChamberWays {bay} />
