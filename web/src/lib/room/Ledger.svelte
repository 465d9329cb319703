<script lang="ts">
  // What each bay gets and what to do there, level with the bay.
  import type { BayOnDay } from '../api/client';
  import { bench, same } from '../workbench.svelte';
  import DliGauge from '../sheet/DliGauge.svelte';

  interface Props {
    bay: BayOnDay;
    storage: boolean;
    top: number;
    height: number;
    left: number;
  }
  const { bay, storage, top, height, left }: Props = $props();

  const words = $derived(bench.words);
  const finding = $derived(bench.findings(bay.bay)[0]);
  const selected = $derived(same(bay.bay, bench.selected));
  const tier = $derived(bay.name.split(', ').at(-1) ?? bay.name);
</script>

<!-- The bay itself is the control with a name; this repeats it in words for the eye. -->
<button
  tabindex="-1"
  aria-hidden="true"
  class="absolute flex w-72 flex-col justify-center overflow-hidden rounded-lg border px-3 text-left text-sm leading-tight"
  class:border-coral!={selected}
  class:border-transparent={!selected}
  style:top="{top}px"
  style:height="{height}px"
  style:left="{left}px"
  onclick={() => bench.select(bay.bay)}
  data-testid="ledger-{bay.bay.tier}"
>
  {#if storage}
    <span class="text-soft">{tier}: storage</span>
  {:else if !bay.light}
    <span class="text-soft">{tier}: free</span>
  {:else if !bay.burning}
    <span><b class="capitalize">{tier}</b>, {words.number(bay.trays.length, 'count')} trays</span>
    <span class="text-soft">germinating in the dark, lamps off</span>
  {:else}
    <span class="flex items-baseline justify-between gap-2">
      <b class="capitalize">{tier}</b>
      <span class="text-soft"
        >{words.number(bay.power.watts, 'power_w')}, {words.number(bay.power.cost_per_day, 'money')} a
        day</span
      >
    </span>
    <DliGauge dli={bay.light.dli} target={bay.light.target} width={262} />
    <span class="text-soft"
      >{words.number(bay.light.dli.mean, 'dli_mol_m2_d')}{#if bay.light.target}, wants {bay.light
          .target.low} to {bay.light.target.high}{/if}</span
    >
    {#if finding}
      <span
        class="truncate font-semibold"
        class:text-wine={finding.severity !== 'advice'}
        class:text-coral={finding.severity === 'advice'}>{words.say(finding.headline)}</span
      >
    {:else}
      <span class="text-sage">right as it hangs</span>
    {/if}
  {/if}
</button>
