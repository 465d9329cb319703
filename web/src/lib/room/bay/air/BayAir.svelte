<script lang="ts">
  // The air over the trays of a bay.
  import type { BayDetail } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';

  const { air }: { air: NonNullable<BayDetail['air']> } = $props();
  const words = $derived(bench.words);
  const risks = { low: 'hardly any', raised: 'some', high: 'high' } as const;
</script>

<dl class="grid grid-cols-3 gap-2" data-testid="air">
  {#each [['by day', `${words.number(air.day_c, 'temperature_c')}, ${words.number(air.humidity, 'share')}`], ['drying power (VPD)', words.number(air.vpd_kpa, 'pressure_kpa')], ['dew point', air.dew_point_c == null ? 'never' : words.number(air.dew_point_c, 'temperature_c')], ['air at the far end', air.far_end_m_s === 0 ? 'still air' : words.number(air.far_end_m_s, 'speed_m_s')], ['on the mean over it', air.over_deck_m_s === 0 ? 'still air' : words.number(air.over_deck_m_s, 'speed_m_s')], ['mould risk', risks[air.mould]]] as [name, value] (name)}
    <div>
      <dt class="text-sm text-soft">{name}</dt>
      <dd class="font-semibold" class:text-wine={value === 'high'}>{value}</dd>
    </div>
  {/each}
</dl>
{#if air.fans.length > 0}
  <p class="mt-1 text-sm">
    Leaves at the far end would stir with {air.fans
      .map((fan) => words.say(fan.what))
      .join('; or ')}.
  </p>
{/if}
