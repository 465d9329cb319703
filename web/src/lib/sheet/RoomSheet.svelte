<script lang="ts">
  // The room as a whole, while no bay is selected.
  import { bench } from '../workbench.svelte';
  import FindingCard from './FindingCard.svelte';

  const words = $derived(bench.words);
  const room = $derived(bench.room);
  const season = $derived(bench.assessment?.season);
  const today = $derived(season?.days.find((d) => d.date === bench.date));
  const findings = $derived(bench.findings());
  const nameOf = $derived(
    (place: string, tier: string) =>
      room?.bays.find((b) => b.bay.place === place && b.bay.tier === tier)?.name,
  );
</script>

<h2 class="text-2xl">The room</h2>
<p class="text-soft">{words.date(bench.date)}; pick a bay to see its light</p>

{#if room && today && season}
  <dl class="mt-3 grid grid-cols-2 gap-3" data-testid="room-figures">
    {#each [['stand here', `${today.trays} of ${season.places_held} trays`], ['lamps draw', words.number(room.power.watts, 'power_w')], ['a day', words.number(room.power.kwh_per_day, 'energy_kwh')], ['costs a day', words.number(room.power.cost_per_day, 'money')]] as [name, value] (name)}
      <div>
        <dt class="text-sm text-soft">{name}</dt>
        <dd class="text-lg font-semibold">{value}</dd>
      </div>
    {/each}
  </dl>
{/if}

<h3 class="mt-5 mb-2">To do</h3>
<div class="flex flex-col gap-3">
  {#each findings as finding, i (`${finding.code}-${finding.bay?.place}-${finding.bay?.tier}-${i}`)}
    <div>
      {#if finding.bay}
        <button
          class="mb-1 font-semibold text-teal hover:underline"
          onclick={() => bench.select(finding.bay ?? undefined)}
          >{nameOf(finding.bay.place, finding.bay.tier)}</button
        >
      {/if}
      <FindingCard {finding} first={i === 0} />
    </div>
  {:else}
    <p class="rounded-xl bg-sage-soft p-3">Nothing: every lamp hangs right on this date.</p>
  {/each}
</div>
<p class="mt-4 border-t pt-2 text-sm text-soft">
  <b>Mains and water.</b>
  {bench.assessment?.caution}
</p>
