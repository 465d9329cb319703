<script lang="ts">
  // Daylight on a sill through the year: average days as bars, from overcast to cloudless as a line.
  import { scaleBand, scaleLinear } from 'd3-scale';
  import type { BayDetail } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';

  const { sill }: { sill: NonNullable<BayDetail['sill']> } = $props();

  const HEIGHT = 150;
  const PAD = { left: 26, right: 4, top: 8, bottom: 20 };
  const NAMES = 'JFMAMJJASOND';
  const ways: Record<number, string> = { 0: 'north', 90: 'east', 180: 'south', 270: 'west' };
  const words = $derived(bench.words);
  let width = $state(0);
  const most = $derived(Math.max(...sill.months.map((m) => m.cloudless), 12));
  const x = $derived(
    scaleBand<number>()
      .domain(sill.months.map((m) => m.month))
      .range([PAD.left, Math.max(width - PAD.right, PAD.left)])
      .padding(0.25),
  );
  const y = $derived(scaleLinear([0, most], [HEIGHT - PAD.bottom, PAD.top]));
  const month = $derived(Number(bench.date.slice(5, 7)));
  const bare = $derived((value: number) => words.bare(value, 'dli_mol_m2_d'));
</script>

<ul class="mb-2 flex flex-col gap-1" data-testid="sill">
  {#each sill.lookouts as lookout, i (i)}
    <li>{words.say(lookout.words)}.</li>
  {/each}
</ul>
<div bind:clientWidth={width}>
  {#if width > 0}
    <svg
      {width}
      height={HEIGHT}
      role="img"
      aria-label="Daylight by month on average days: {sill.months
        .map((m) => bare(m.average))
        .join(', ')} mol/m²/d"
      class="block"
    >
      {#each y.ticks(4) as tick (tick)}
        <text x={PAD.left - 5} y={y(tick) + 5} text-anchor="end" font-size="14" fill="var(--soft)"
          >{tick}</text
        >
      {/each}
      {#each sill.months as m (m.month)}
        {@const middle = x(m.month)! + x.bandwidth() / 2}
        <rect
          x={x(m.month)}
          y={y(m.average)}
          width={x.bandwidth()}
          height={y(0) - y(m.average)}
          fill="var(--straw)"
          stroke={m.month === month ? 'var(--ink)' : 'none'}
          stroke-width="1.5"
        />
        <path
          d="M{middle} {y(m.overcast)}V{y(m.cloudless)}M{middle - 4} {y(m.cloudless)}h8"
          stroke="var(--ink)"
          stroke-width="1.2"
        />
        <text
          x={middle}
          y={HEIGHT - 4}
          text-anchor="middle"
          font-size="14"
          font-weight={m.month === month ? 700 : 400}
          fill="var(--ink)">{NAMES[m.month - 1]}</text
        >
      {/each}
      {#each sill.lookouts as lookout, i (i)}
        <line
          x1={PAD.left}
          x2={width - PAD.right}
          y1={y(lookout.wants_mol_m2_d)}
          y2={y(lookout.wants_mol_m2_d)}
          stroke="var(--sage)"
          stroke-width="1.5"
          stroke-dasharray="5 4"
        />
      {/each}
    </svg>
    <p class="text-sm text-soft">
      Daily light (DLI) in mol/m²/d: bars on average days, lines from overcast to cloudless; dashed
      green what leafy and fruiting seedlings need
    </p>
  {/if}
</div>
<p class="mt-1 text-sm" data-testid="facing">
  A window facing another way would give, this month: {sill.facing
    .map((f) => `${ways[f.azimuth_deg]} ${bare(f.average[month - 1]!)}`)
    .join(', ')}.
</p>
<p class="mt-1 text-sm">
  Today the glass side gets {bare(sill.near_pane_mol_m2_d)}, the room side {bare(
    sill.near_room_mol_m2_d,
  )}: turn trays half round every day, and each gets {words.number(
    sill.turned_mol_m2_d,
    'dli_mol_m2_d',
  )}.
</p>
