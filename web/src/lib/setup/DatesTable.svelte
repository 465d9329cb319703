<script lang="ts">
  // Every sowing's dates, and by how much an edit that is not kept yet would move them.
  import { bench } from '../bench/workbench.svelte';
  import WhyNote from '../finding/WhyNote.svelte';

  const words = $derived(bench.words);
  const sowings = $derived(
    [...(bench.assessment?.sowings ?? [])].sort((a, b) => a.sow.localeCompare(b.sow)),
  );
</script>

<table class="w-full [&_td]:py-1.5 [&_th]:py-1.5" data-testid="dates">
  <thead class="text-left text-sm text-soft">
    <tr>
      <th class="py-1 font-normal">Sowing</th>
      <th class="font-normal">sow</th>
      <th class="font-normal">up</th>
      <th class="font-normal">harden off</th>
      <th class="font-normal">plant out</th>
    </tr>
  </thead>
  <tbody>
    {#each sowings as dates (dates.sowing)}
      <tr class="border-t align-baseline" data-testid="dates-{dates.sowing}">
        <th class="pr-2 text-left font-semibold">{dates.name}</th>
        <td>{words.shortDate(dates.sow)} <WhyNote of="sowing date" why={dates.why.sow} /></td>
        <td
          >{dates.emerge ? words.shortDate(dates.emerge) : 'never'}
          <WhyNote of="day it comes up" why={dates.why.emerge} /></td
        >
        <td>{words.shortDate(dates.harden)}</td>
        <td>{words.shortDate(dates.out)} <WhyNote of="planting date" why={dates.why.out} /></td>
      </tr>
    {/each}
  </tbody>
</table>
