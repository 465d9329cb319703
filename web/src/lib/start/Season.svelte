<script lang="ts">
  // What comes out: dates, where everything stands on the fullest day, and what is missing.
  import { onMount, untrack } from 'svelte';
  import { bench } from '../bench/workbench.svelte';
  import Findings from '../finding/Findings.svelte';

  const words = $derived(bench.words);
  const season = $derived(bench.assessment?.season);
  const dates = $derived(
    [...(bench.assessment?.sowings ?? [])].sort((a, b) => a.sow.localeCompare(b.sow)),
  );
  const without = $derived(bench.draft!.trays.filter((tray) => tray.stands.length === 0));
  const fullest = $derived(season?.days.find((day) => day.date === season?.fullest));
  const findings = $derived(bench.findings().filter((found) => found.code !== 'stands_nowhere'));
  let standing = $state(false);

  onMount(() => {
    const done = bench.showSowings();
    void stand();
    return done;
  });

  /** Gives every tray without a spot the first that suits. */
  async function stand() {
    if (without.length > 0) {
      standing = true;
      await bench.edit({ place_all: { afresh: false } });
      standing = false;
    }
  }

  const fullestDay = $derived(season?.fullest);
  $effect(() => {
    if (fullestDay && !standing) untrack(() => bench.go(fullestDay));
  });
</script>

{#if bench.draft!.sowings.length === 0}
  <p class="text-soft">Nothing is sown yet: go back one step and choose what to grow.</p>
{:else if standing}
  <p class="text-soft" role="status">Finding a spot for every tray…</p>
{:else}
  <p
    class="rounded-xl p-3 {without.length > 0 ? 'bg-wine-soft' : 'bg-sage-soft'}"
    data-testid="result"
  >
    {#if without.length > 0}
      <b>{without.length} of {bench.draft!.trays.length} trays find no spot:</b>
      {without
        .slice(0, 8)
        .map((tray) => tray.name)
        .join(', ')}{without.length > 8 ? ' …' : ''}. Fewer plants, another shelf or more lamps
      would make room.
    {:else}
      <b>Every tray has a spot.</b>
    {/if}
    {#if fullest}
      The room is fullest on {words.date(fullest.date)}: {fullest.trays} of {bench.draft!.trays
        .length}
      trays stand here then.
    {/if}
  </p>
  <h2 class="mt-4 text-lg">Dates</h2>
  <table class="w-full" data-testid="dates">
    <thead class="text-left text-sm text-soft"
      ><tr
        ><th class="font-normal">Sow</th><th class="font-normal">What</th><th class="font-normal"
          >Plant out</th
        ></tr
      ></thead
    >
    <tbody>
      {#each dates as one (one.sowing)}
        <tr class="border-t"
          ><td class="py-1 pr-3 whitespace-nowrap">{words.shortDate(one.sow)}</td><td
            class="pr-3 font-semibold">{one.name}</td
          ><td class="whitespace-nowrap">{words.shortDate(one.out)}</td></tr
        >
      {/each}
    </tbody>
  </table>
  {#if findings.length > 0}
    <h2 class="mt-4 mb-2 text-lg">To do</h2>
    <div class="flex flex-col gap-3"><Findings {findings} /></div>
  {/if}
{/if}
