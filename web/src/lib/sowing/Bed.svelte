<script lang="ts">
  // What starting indoors gains over sowing in the bed.
  import type { SowingDates } from '../api/client';
  import { bench } from '../bench/workbench.svelte';

  const { dates }: { dates: SowingDates } = $props();
  const words = $derived(bench.words);
  const bed = $derived(dates.in_the_bed);
  const weeks = $derived(bed ? Math.round(Math.abs(bed.gained_weeks)) : 0);
</script>

{#if bed}
  <p class="mt-1 text-sm text-soft" data-testid="bed">
    {#if weeks === 0}
      Starting indoors gains nothing here: sown in the bed about {words.shortDate(bed.sow)}, it is
      as far by {words.shortDate(bed.ready)}.
    {:else if bed.gained_weeks > 0}
      Starting indoors gains about {weeks}
      {weeks === 1 ? 'week' : 'weeks'}: sown in the bed about {words.shortDate(bed.sow)}, it is as
      far only by {words.shortDate(bed.ready)}.
    {:else}
      The bed is about {weeks}
      {weeks === 1 ? 'week' : 'weeks'} ahead: sown there about {words.shortDate(bed.sow)}, it is as
      far by {words.shortDate(bed.ready)}.
    {/if}
    We estimate the air outdoors from the last frost and the latitude.
  </p>
{:else if dates.stands || dates.pace}
  <p class="mt-1 text-sm text-soft">
    Sown in the bed it would not be as far before winter: it needs the start indoors.
  </p>
{/if}
