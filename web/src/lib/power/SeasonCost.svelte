<script lang="ts">
  // What the season draws and costs, line by line.
  import type { Electricity } from '../api/client';
  import { bench } from '../bench/workbench.svelte';

  const { answer }: { answer: Electricity } = $props();
  const words = $derived(bench.words);
  const names = {
    lamp: 'lamps',
    mat: 'mats',
    chamber: 'chamber heat',
    fan: 'fans',
    appliance: 'household',
  } as const;
  const days = $derived(answer.running.days);
  const WIDE = 330;
  const HIGH = 50;
  const x = $derived((day: number) => (day / Math.max(days.length - 1, 1)) * WIDE);
  const here = $derived(days.findIndex((day) => day.date === answer.date));
  /** What each day costs, against the dearest. */
  const curve = $derived.by(() => {
    const y = (cost: number) => HIGH - (Math.max(cost, 0) / most.cost) * (HIGH - 3);
    const points = days.map((day, i) => `L${x(i)} ${y(day.cost)}`);
    return `M0 ${HIGH}${points.join('')}L${WIDE} ${HIGH}Z`;
  });
  const most = $derived(answer.running.days.reduce((a, b) => (b.cost > a.cost ? b : a)));
</script>

<table class="w-full" data-testid="season-cost">
  <thead class="sr-only"><tr><th>what</th><th>energy</th><th>cost</th></tr></thead>
  <tbody>
    {#each answer.running.lines as line (line.what)}
      <tr>
        <td
          >{names[line.what]}{#if line.duty < 0.995}<span class="text-soft"
              >, on {words.number(line.duty, 'share')} of the time</span
            >{/if}</td
        >
        <td class="text-right whitespace-nowrap">{words.number(line.kwh, 'energy_kwh')}</td>
        <td class="pl-3 text-right whitespace-nowrap">{words.number(line.cost, 'money')}</td>
      </tr>
    {/each}
    <tr class="font-semibold">
      <td>whole season</td>
      <td class="text-right whitespace-nowrap">{words.number(answer.running.kwh, 'energy_kwh')}</td>
      <td class="pl-3 text-right whitespace-nowrap">{words.number(answer.running.cost, 'money')}</td
      >
    </tr>
  </tbody>
</table>
{#if most.cost > 0}
  <svg viewBox="0 0 {WIDE} {HIGH + 16}" class="mt-2 w-full" role="img" aria-label="Cost day by day">
    <path d={curve} class="fill-straw-soft stroke-straw" stroke-width="1.5" />
    {#if here >= 0}
      <line x1={x(here)} x2={x(here)} y1="0" y2={HIGH} class="stroke-coral" stroke-width="2" />
    {/if}
    <text x="0" y={HIGH + 13} class="fill-soft text-[11px]">{words.date(days[0]!.date)}</text>
    <text x={WIDE} y={HIGH + 13} text-anchor="end" class="fill-soft text-[11px]"
      >{words.date(days[days.length - 1]!.date)}</text
    >
  </svg>
  <p class="mt-1 text-sm text-soft">
    The dearest day is {words.date(most.date)}: {words.number(most.cost, 'money')}.
  </p>
{/if}
