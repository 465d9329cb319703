<script lang="ts">
  // The day that the season hangs on.
  import { bench } from '../bench/workbench.svelte';
  import DateField from '../fields/DateField.svelte';

  const site = $derived(bench.draft!.site);
  const season = $derived(bench.draft!.season);
</script>

<p class="mb-3 text-soft">
  Every date counts back from here: half of all springs have their last frost by this day, half
  later.
</p>
<DateField
  label="Last frost (half of years are later)"
  value={site.last_frost}
  onset={(day) => void bench.edit({ anchor: { last_frost: day } })}
/>
<p class="mt-3 rounded-xl bg-sage-soft p-3" data-testid="estimate">
  {#if site.last_frost_estimated}
    <b>Our own estimate from where you live.</b> It may well be three weeks out. Hollows and high ground
    are later, towns and coasts earlier: a neighbour who gardens knows better.
  {:else}
    Frost records of your place (daily lows from a weather station) can be added in Setup at any
    time; then we work out how sure each day is.
  {/if}
</p>
<p class="mt-3 text-soft">
  The season runs from {bench.words.longDate(season.from)} to {bench.words.longDate(season.to)}.
</p>
