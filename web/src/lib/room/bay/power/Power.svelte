<script lang="ts">
  import type { BayOnDay } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';
  import WhyNote from '../../../finding/WhyNote.svelte';

  const { bay }: { bay: BayOnDay } = $props();
  const words = $derived(bench.words);
</script>

<div class="flex flex-wrap items-baseline gap-x-2">
  <h3>Power</h3>
  <WhyNote of="power" why={bay.detail?.power_why} />
</div>
<dl class="grid grid-cols-4 gap-2" data-testid="power">
  {#each [['draws', words.number(bay.power.watts, 'power_w')], ['current', words.number(bay.power.amps, 'current_a')], ['a day', words.number(bay.power.kwh_per_day, 'energy_kwh')], ['costs a day', words.number(bay.power.cost_per_day, 'money')]] as [name, value] (name)}
    <div>
      <dt class="text-sm text-soft">{name}</dt>
      <dd class="font-semibold">{value}</dd>
    </div>
  {/each}
</dl>
