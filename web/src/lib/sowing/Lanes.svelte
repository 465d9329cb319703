<script lang="ts">
  // How many trays want a warm spot, a lit one, or the cold frame, day by day, under a line for what there is.
  import { area, curveStepAfter } from 'd3-shape';
  import { bench } from '../bench/workbench.svelte';
  import { GUTTER_PX, type TimeAxis } from '../ribbon/scale';
  import { lanes, tooMany, type Lane } from './lanes';

  const { axis }: { axis: TimeAxis } = $props();

  const HIGH = 40;
  const words = $derived(bench.words);
  const season = $derived(bench.assessment?.season);
  const shown = $derived(season ? lanes(season) : []);
  const y = (lane: Lane, trays: number) =>
    HIGH - 2 - (trays / Math.max(lane.most, lane.spots, 1)) * (HIGH - 6);
  const shape = $derived((lane: Lane, over: boolean) =>
    area<{ date: string; trays: number }>()
      .curve(curveStepAfter)
      .x((day) => axis.x(day.date))
      .y0(over ? y(lane, lane.spots) : HIGH - 2)
      .y1((day) => y(lane, over ? Math.max(day.trays, lane.spots) : day.trays))(lane.days),
  );
  const today = $derived(
    (lane: Lane) => lane.days.find((day) => day.date === bench.date)?.trays ?? 0,
  );
  const told = $derived((lane: Lane) => {
    const spans = tooMany(lane).map(
      ({ from, to, short }) =>
        `${words.shortDate(from)} to ${words.shortDate(to)}: ${short} too few`,
    );
    return `${lane.name}: ${lane.spots}; at most ${lane.most} trays want one. ${spans.join('; ') || 'Enough on every day'}`;
  });
</script>

{#each shown as lane (lane.kind)}
  <div class="relative flex border-t max-sm:flex-col" data-testid="lane-{lane.kind}">
    <p
      class="shrink-0 pr-2 text-sm leading-tight max-sm:w-full!"
      style:width="{GUTTER_PX}px"
      title={told(lane)}
    >
      <b>{lane.name}</b>
      <span class="text-soft" class:text-wine!={today(lane) > lane.spots}
        ><br class="max-sm:hidden" />{today(lane)} wanted, room for {lane.spots}</span
      >
    </p>
    <svg width={axis.width} height={HIGH} role="img" aria-label={told(lane)} class="block">
      <path d={shape(lane, false)} fill="var(--sage)" opacity="0.55" />
      <path d={shape(lane, true)} fill="var(--wine)" opacity="0.75" />
      <line
        x2={axis.width}
        y1={y(lane, lane.spots)}
        y2={y(lane, lane.spots)}
        stroke="var(--wine)"
        stroke-width="1.5"
        stroke-dasharray="5 4"
      />
    </svg>
  </div>
{/each}
