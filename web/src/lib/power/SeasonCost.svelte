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
  <p class="mt-1 text-sm text-soft">
    The dearest day is {words.date(most.date)}: {words.number(most.cost, 'money')}.
  </p>
{/if}
