<script lang="ts">
  // Trays that stand nowhere on this date: drag one onto a shelf, or tap one or several and choose the bay.
  import { bench } from '../../bench/workbench.svelte';
  import { carry } from '../carry.svelte';
  import { carryOff } from './carryTrays';
  import PlaceAll from './PlaceAll.svelte';
  import StandIn from './StandIn.svelte';

  const trays = $derived(bench.room?.unplaced ?? []);
  /** The trays for which a bay is being chosen. */
  let chosen: string[] = $state([]);
  const open = $derived(trays.filter((tray) => chosen.includes(tray.tray)));
  const formatOf = $derived((id: string) =>
    bench.draft?.tray_formats.find((format) => format.id === id),
  );

  function tap(tray: string) {
    if (carry.wasDragged()) return;
    chosen = chosen.includes(tray) ? chosen.filter((id) => id !== tray) : [...chosen, tray];
  }
</script>

{#if trays.length > 0}
  <section class="card mx-4 mb-3 flex min-w-0 flex-col gap-1 px-4 py-2" aria-label="Tray shelf">
    <div class="flex flex-wrap items-baseline gap-x-3">
      <h2 class="text-base" data-testid="unplaced">
        {trays.length === 1
          ? '1 tray stands nowhere on this date'
          : `${trays.length} trays stand nowhere on this date`}
      </h2>
      <p class="text-sm text-soft">drag one onto a shelf, or tap one or several and choose</p>
      <PlaceAll label="Find spots for all" />
    </div>
    {#if open.length > 0}
      <div class="max-w-md">
        <StandIn
          label="Stand {open.length === 1 ? open[0]!.label : `${open.length} trays`} in"
          trays={open.map((tray) => tray.tray)}
          stage={open[0]!.stage}
          ondone={() => (chosen = [])}
        />
      </div>
    {/if}
    <!-- It scrolls, so keys must reach it. -->
    <ul class="flex gap-2 overflow-x-auto py-1" data-testid="tray-shelf">
      {#each trays as tray (tray.tray)}
        <li class="shrink-0">
          <button
            class="flex h-full touch-pan-x flex-col rounded-lg border border-line bg-paper px-3 py-1.5 text-left hover:border-coral"
            class:bg-straw-soft!={chosen.includes(tray.tray)}
            aria-pressed={chosen.includes(tray.tray)}
            title={formatOf(tray.format)?.name ?? tray.format}
            onpointerdown={(event) => carryOff(event, tray, open, () => (chosen = []))}
            onclick={() => tap(tray.tray)}
            ondragstart={(event) => event.preventDefault()}
          >
            <span class="font-semibold">{tray.label}</span>
            <span class="max-w-56 truncate text-sm text-soft">{tray.holds.join('; ')}</span>
          </button>
        </li>
      {/each}
    </ul>
  </section>
{/if}
