<script lang="ts">
  // The day of one feed, hour by hour, under what it may carry for hours.
  import type { FeedLoad } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import { outline } from './loads';

  const { load }: { load: FeedLoad } = $props();
  const words = $derived(bench.words);
  const WIDE = 300;
  const HIGH = 60;
  const limit = $derived(load.limits[0]);
  const over = $derived(load.limits.some((limit) => limit.over));
  const most = $derived(Math.max(load.peak_w * 1.2, (limit?.lasting_va ?? 0) * 1.1, 1));
  const x = (hour: number) => (hour / 24) * WIDE;
  const y = $derived((watts: number) => HIGH - (watts / most) * HIGH);
</script>

<figure class="mt-2" data-testid="feed-day">
  <svg viewBox="0 -4 {WIDE} {HIGH + 20}" class="w-full max-w-md" role="img" aria-label={load.name}>
    <path
      d={outline(load.steps, 'watts', x, y)}
      class={over ? 'fill-wine-soft stroke-wine' : 'fill-straw-soft stroke-straw'}
      stroke-width="1.5"
    />
    <path
      d={outline(load.steps, 'mean_w', x, y)}
      class="fill-none stroke-soft"
      stroke-dasharray="2 3"
    />
    {#if limit}
      <line
        x1="0"
        x2={WIDE}
        y1={y(limit.lasting_va)}
        y2={y(limit.lasting_va)}
        class="stroke-wine"
        stroke-dasharray="6 4"
      />
    {/if}
    {#each [0, 6, 12, 18, 24] as hour (hour)}
      <text
        x={x(hour)}
        y={HIGH + 13}
        text-anchor={hour === 0 ? 'start' : hour === 24 ? 'end' : 'middle'}
        class="fill-soft text-[10px]">{words.number(hour, 'clock_h')}</text
      >
    {/each}
  </svg>
  <figcaption class="text-sm text-soft">
    At most {words.number(load.peak_w, 'power_w')} ({words.number(load.peak_a, 'current_a')}), from {words.number(
      load.peak_h,
      'clock_h',
    )}{limit ? `; it may carry ${words.number(limit.lasting_va, 'power_w')} for hours` : ''}. {words.number(
      load.kwh,
      'energy_kwh',
    )} that day.
  </figcaption>
</figure>
