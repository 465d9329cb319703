<script lang="ts">
  // A figure from day to day: a line as it is reckoned, dots as it was seen.
  import { scaleLinear } from 'd3-scale';
  import { curveMonotoneX, line } from 'd3-shape';
  import type { Quantity, Track } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import { daysBetween } from '../say/dates';

  interface Props {
    track: Track;
    title: string;
    /** In what the figure is written; a plain number when left out. */
    quantity?: Quantity;
  }
  const { track, title, quantity }: Props = $props();
  const words = $derived(bench.words);
  const WIDTH = 320;
  const HEIGHT = 110;
  const LEFT = 46;
  const BOTTOM = 20;

  const days = $derived([...track.reckoned, ...track.seen].map((point) => point.day).sort());
  const from = $derived(days[0] ?? '');
  const last = $derived(days.at(-1) ?? '');
  const length = $derived(from ? Math.max(daysBetween(from, last), 1) : 1);
  const values = $derived([...track.reckoned, ...track.seen].map((point) => point.value));
  const warmth = $derived(quantity === 'temperature_c');
  const least = $derived(warmth ? Math.min(...values) - 2 : 0);
  const most = $derived(
    track.most ?? Math.max(...values, 1) * (warmth ? 1 : 1.1) + (warmth ? 2 : 0),
  );
  const x = $derived(
    scaleLinear()
      .domain([0, length])
      .range([LEFT, WIDTH - 8]),
  );
  const y = $derived(
    scaleLinear()
      .domain([least, most])
      .range([HEIGHT - BOTTOM, 8]),
  );
  const at = $derived((day: string) => x(daysBetween(from, day)));
  const path = $derived(
    line<{ day: string; value: number }>()
      .x((point) => at(point.day))
      .y((point) => y(point.value))
      .curve(curveMonotoneX)(track.reckoned) ?? '',
  );
  const written = $derived((value: number) =>
    quantity ? words.number(value, quantity) : String(Math.round(value)),
  );
  const lastSeen = $derived(track.seen.at(-1));
</script>

<figure class="min-w-0">
  <figcaption class="text-sm">
    <b>{title}</b>
    {#if lastSeen}<span class="text-soft"
        >{written(lastSeen.value)} on {words.shortDate(lastSeen.day)}</span
      >{:else}<span class="text-soft">nothing noted yet</span>{/if}
  </figcaption>
  <svg
    viewBox="0 0 {WIDTH} {HEIGHT}"
    class="mt-0.5 w-full max-w-md"
    role="img"
    aria-label="{title}: {track.seen
      .map((point) => `${written(point.value)} on ${words.shortDate(point.day)}`)
      .join(', ') || 'nothing noted yet'}"
  >
    <path d="M{LEFT} 8V{HEIGHT - BOTTOM}H{WIDTH - 8}" fill="none" stroke="var(--line)" />
    {#each [least, most] as value (value)}
      <text x={LEFT - 5} y={y(value) + 4} text-anchor="end">{written(value)}</text>
    {/each}
    <text x={LEFT} y={HEIGHT - 4}>{from ? words.shortDate(from) : ''}</text>
    <text x={WIDTH - 8} y={HEIGHT - 4} text-anchor="end">{last ? words.shortDate(last) : ''}</text>
    <path d={path} fill="none" stroke="var(--teal)" stroke-width="2" stroke-dasharray="5 3" />
    {#each track.seen as point, i (i)}
      <circle
        cx={at(point.day)}
        cy={y(point.value)}
        r="4.5"
        fill="var(--coral)"
        stroke="var(--raised)"
      />
    {/each}
  </svg>
</figure>

<style>
  text {
    font-size: 12px;
    fill: var(--soft);
  }
</style>
