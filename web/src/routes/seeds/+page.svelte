<script lang="ts">
  // Crops and packets: what to sow, how many, and what the packets have.
  import { onMount } from 'svelte';
  import { api } from '$lib/api/client';
  import type { CropLibrary, SowingCells, ToSow } from '$lib/api/client';
  import Crops from '$lib/seeds/Crops.svelte';
  import HowMany from '$lib/seeds/HowMany.svelte';
  import Packets from '$lib/seeds/Packets.svelte';
  import { bench } from '$lib/bench/workbench.svelte';

  const words = $derived(bench.words);
  let library: CropLibrary | undefined = $state.raw();
  let failed = $state('');
  const crops = $derived.by(() => {
    const own = bench.draft?.crops ?? [];
    const ids = new Set(own.map((crop) => crop.id));
    return [...own, ...(library?.crops ?? []).filter((crop) => !ids.has(crop.id))].sort((a, b) =>
      a.name.localeCompare(b.name),
    );
  });
  const order = $derived(bench.assessment?.to_sow ?? []);
  const dateOf = $derived((id: string) =>
    bench.assessment?.sowings.find((dates) => dates.sowing === id),
  );
  const short = $derived(order.filter((cells) => (cells.seeds_left ?? 0) < 0));

  onMount(() => {
    void fetchCrops();
    return bench.showSowings();
  });
  async function fetchCrops() {
    try {
      library = await api.crops();
      failed = '';
    } catch (error) {
      failed = error instanceof Error ? error.message : String(error);
    }
  }

  /** What to sow of a sowing, in a few words. */
  function howMuch(sow: ToSow, from: SowingCells['grown_from']): string {
    if (from !== 'seed') return `${sow.cells} ${from}, one to a pot`;
    if (sow.open_tray) return `${sow.seeds} seeds in an open tray`;
    return `${sow.cells} cells × ${sow.seeds_per_cell} ${sow.seeds_per_cell === 1 ? 'seed' : 'seeds'}`;
  }
</script>

<svelte:head><title>Seeds · Faint Sunrise</title></svelte:head>

<h1 class="sr-only">Seeds</h1>
<div class="grid grow items-start gap-4 p-4 lg:grid-cols-[1fr_1fr_24rem]">
  <section class="card p-4" aria-label="Sowing order">
    <h2 class="text-xl">In the order to sow</h2>
    {#if short.length > 0}
      <p class="mt-1 rounded-xl bg-wine-soft p-2" data-testid="to-buy">
        To buy: {short.map((cells) => cells.name).join('; ')}.
      </p>
    {/if}
    <ol class="mt-2" data-testid="order">
      {#each order as cells (cells.sowing)}
        {@const dates = dateOf(cells.sowing)}
        <li class="flex gap-3 border-t py-1.5">
          <span class="w-16 shrink-0 font-semibold">{dates ? words.shortDate(dates.sow) : ''}</span>
          <span class="min-w-0">
            <b>{cells.name}</b>
            <span class="block text-sm text-soft">
              {#if cells.to_sow}
                {howMuch(cells.to_sow, cells.grown_from)}{#if cells.packet}, from its packet{/if}{#if dates?.chill};
                  cold from {words.shortDate(dates.chill)}{/if}
              {:else if cells.problem}
                <span class="text-wine">{words.say(cells.problem)}</span>
              {:else}
                not sown here
              {/if}
              {#if (cells.seeds_left ?? 0) < 0}<span class="block text-wine"
                  >packet {-(cells.seeds_left ?? 0)} seeds short</span
                >{/if}
            </span>
          </span>
        </li>
      {:else}
        <li class="text-soft">Nothing is sown yet: choose a crop.</li>
      {/each}
    </ol>
  </section>
  <section class="card p-4" aria-label="Crops">
    <h2 class="mb-2 text-xl">Crops</h2>
    {#if library}
      <Crops {library} {crops} />
    {:else if failed}
      <p class="text-wine" role="alert">{failed}</p>
      <button class="quiet border-line!" onclick={() => void fetchCrops()}>Try again</button>
    {:else}
      <p class="text-soft" role="status">Loading the crops…</p>
    {/if}
  </section>
  <div class="flex flex-col gap-4">
    <section class="card p-4" aria-label="How many">
      <h2 class="mb-1 text-xl">How many?</h2>
      <HowMany />
    </section>
    <section class="card p-4" aria-label="Packets">
      <h2 class="text-xl">Packets</h2>
      {#if library}<Packets {crops} />{/if}
    </section>
  </div>
</div>
