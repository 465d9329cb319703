<script lang="ts">
  // What the lamps' colour means for seedlings, in numbers.
  import type { BayDetail } from '../../../api/client';
  import { bench } from '../../../bench/workbench.svelte';

  const { colour }: { colour: NonNullable<BayDetail['colour']> } = $props();
  const words = $derived(bench.words);
</script>

<p data-testid="colour">{words.say(colour.verdict)}.</p>
{#if colour.shades.length > 0}
  <table class="mt-1 w-full text-right">
    <thead class="text-sm text-soft">
      <tr>
        <th class="text-left font-normal">same lumens at</th>
        <th class="font-normal">photons*</th>
        <th class="font-normal">PPFD here</th>
        <th class="pl-3 font-normal">blue</th>
        <th class="pl-3 font-normal">red</th>
      </tr>
    </thead>
    <tbody>
      {#each colour.shades as shade (shade.cct_k)}
        <tr>
          <th class="text-left font-normal">{words.number(shade.cct_k, 'colour_temperature_k')}</th>
          <td>{words.bare(shade.umol_per_s_per_klm, 'plain')}</td>
          <td>{words.bare(shade.mean_ppfd, 'ppfd_umol_m2_s')}</td>
          <td class="pl-3">{words.number(shade.blue, 'share')}</td>
          <td class="pl-3">{words.number(shade.red, 'share')}</td>
        </tr>
      {/each}
    </tbody>
  </table>
  <p class="text-sm text-soft">* in µmol/s per 1000 lumens; blue and red are shares of them</p>
{/if}
<ul class="mt-1 text-sm">
  {#each colour.lamps as lamp, i (i)}
    <li>
      {lamp.name}: {words.number(lamp.ppf_umol_s, 'ppf_umol_s')}, {words.bare(
        lamp.umol_per_j,
        'plain',
      )} µmol a joule; a lux meter shows {words.bare(lamp.lux_per_umol_m2_s, 'illuminance_lux')} lux for
      each µmol/m²/s
    </li>
  {/each}
</ul>
<p class="mt-1 text-sm">{words.say(colour.flowering)}.</p>
