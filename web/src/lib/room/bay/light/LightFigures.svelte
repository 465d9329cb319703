<script lang="ts">
  // The light on the leaves, in figures.
  import type { BayLight, LightWhy } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';
  import WhyNote from '../../../finding/WhyNote.svelte';
  import DliGauge from './DliGauge.svelte';

  const { light, why }: { light: BayLight; why: LightWhy | null | undefined } = $props();
  const words = $derived(bench.words);
</script>

<table class="w-full text-right">
  <thead class="text-sm text-soft">
    <tr>
      <th class="text-left font-normal">at the leaves</th>
      <th class="pl-2 font-normal">average</th>
      <th class="pl-2 font-normal">darkest</th>
      <th class="pl-2 font-normal">brightest</th>
    </tr>
  </thead>
  <tbody>
    {#if light.ppfd.best > 0}
      <tr data-testid="ppfd">
        <th class="text-left font-semibold"
          >Brightness (PPFD) <span class="text-sm font-normal text-soft">µmol/m²/s</span></th
        >
        <td class="font-semibold">{words.bare(light.ppfd.mean, 'ppfd_umol_m2_s')}</td>
        <td>{words.bare(light.ppfd.worst, 'ppfd_umol_m2_s')}</td>
        <td>{words.bare(light.ppfd.best, 'ppfd_umol_m2_s')}</td>
      </tr>
    {/if}
    {#if light.dli.best > 0}
      <tr data-testid="dli">
        <th class="text-left font-semibold"
          >Daily light (DLI) <span class="text-sm font-normal text-soft">mol/m²/d</span></th
        >
        <td class="font-semibold">{words.bare(light.dli.mean, 'dli_mol_m2_d')}</td>
        <td>{words.bare(light.dli.worst, 'dli_mol_m2_d')}</td>
        <td>{words.bare(light.dli.best, 'dli_mol_m2_d')}</td>
      </tr>
    {/if}
  </tbody>
</table>
{#if light.dli.best === 0}
  <p class="text-sm text-soft">Dark now: the lamps come on when the first seedlings are up.</p>
{/if}
<div class="mt-1 flex flex-wrap items-center gap-x-2">
  <DliGauge dli={light.dli} target={light.target} width={200} />
  {#if light.target}
    <span class="text-sm">needs {light.target.low} to {light.target.high}</span>
  {:else}
    <span class="text-sm text-soft">nothing is up yet</span>
  {/if}
</div>
<ul class="mt-1 text-sm" data-testid="measures">
  {#if light.target}
    <li>
      <b>{words.number(light.under, 'share')}</b> of cells get too little light,
      <b>{words.number(light.over, 'share')}</b> more than they can use{#if light.hours_in_band};
        the average is right from {words.bare(light.hours_in_band.low, 'hours')} to {words.number(
          light.hours_in_band.high,
          'hours',
        )} a day{/if}
    </li>
  {/if}
  {#if light.lux.mean > 0}
    <li>
      A lux meter on the leaves reads {words.number(light.lux.worst, 'illuminance_lux')} at ✕ and
      {words.number(light.lux.best, 'illuminance_lux')} at ○
    </li>
  {/if}
  {#if light.sent_back >= 0.5}
    <li>
      Of this, {words.number(light.sent_back, 'ppfd_umol_m2_s')} is reflected light
    </li>
  {/if}
  {#if light.daylight_mol_m2_d > 0}
    <li>
      {words.number(light.daylight_mol_m2_d, 'dli_mol_m2_d')} is daylight on an average day{#if light.daylight_enough_from};
        enough by itself from {words.shortDate(light.daylight_enough_from)}{/if}
    </li>
  {/if}
  {#if light.from_above_mol_m2_d >= 0.05}
    <li>
      {words.number(light.from_above_mol_m2_d, 'dli_mol_m2_d')} comes through the shelf above
    </li>
  {/if}
</ul>
<div class="flex flex-wrap gap-x-3">
  {#if light.ppfd.best > 0}
    <span class="text-sm text-soft">PPFD <WhyNote of="PPFD" why={why?.ppfd} /></span>
  {/if}
  <span class="text-sm text-soft">DLI <WhyNote of="DLI" why={why?.dli} /></span>
</div>
