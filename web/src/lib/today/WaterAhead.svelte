<script lang="ts">
  // Water for the weeks to come, and which tray wants it next: for who carries it, or goes away.
  import { answered, client, type Schemas } from '../api/client';
  import { bench } from '../bench/workbench.svelte';
  import { mixes } from '../room/whole/mixes';
  import { Asked } from '../setup/outdoors.svelte';

  const words = $derived(bench.words);
  let open = $state(false);
  const asked = new Asked<Schemas['WaterAhead']>((id) =>
    answered(
      client.GET('/api/plans/{id}/water', {
        params: { path: { id }, query: { on: bench.date } },
      }),
    ),
  );
  const plan = $derived(bench.view?.id);
  $effect(() => {
    void bench.view?.revision;
    void bench.date;
    if (open && plan !== undefined) void asked.ask(plan);
  });
  const ahead = $derived(asked.answer);
  const most = $derived(Math.max(1, ...(ahead?.weeks.map((week) => week.litres) ?? [])));
  const litres = (l: number) => words.number(l * 1000, 'volume_ml');
</script>

<section class="card px-4 py-2" aria-label="Water ahead">
  <details ontoggle={(event) => (open = event.currentTarget.open)}>
    <summary class="flex min-h-11 cursor-pointer items-center text-lg font-semibold"
      >Water, week by week</summary
    >
    {#if asked.problem}
      <p class="text-wine" role="alert">{asked.problem}</p>
    {:else if !ahead}
      <p class="text-soft" role="status">Working it out…</p>
    {:else}
      <p class="text-sm text-soft">What the trays indoors drink, watered as they want it.</p>
      <table class="mt-1 w-full text-sm">
        <thead class="sr-only"
          ><tr><th>Week from</th><th>Water</th><th>Trays, and how often</th></tr></thead
        >
        <tbody data-testid="water-weeks">
          {#each ahead.weeks as week (week.from)}
            <tr>
              <td class="pr-2 whitespace-nowrap">{words.shortDate(week.from)}</td>
              <td class="w-full">
                <div class="flex items-center gap-1.5">
                  <span
                    class="block h-2 min-w-px rounded-full bg-teal"
                    style:width="{(week.litres / most) * 60}%"
                  ></span>
                  <b class="whitespace-nowrap">{litres(week.litres)}</b>
                </div>
              </td>
              <td class="text-right whitespace-nowrap text-soft"
                >{week.trays === 1 ? '1 tray' : `${week.trays} trays`}{week.every_days == null
                  ? ''
                  : `, every ${words.number(Math.max(1, Math.floor(week.every_days)), 'days')}`}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
      <h3 class="mt-2">Which tray wants it next</h3>
      <ul class="text-sm" data-testid="water-trays">
        {#each ahead.trays as tray (tray.tray)}
          <li class="flex justify-between gap-2 border-t py-1">
            <span class="min-w-0"
              ><b>{tray.label}</b> <span class="text-soft">{tray.bay_name}</span>
              <span class="block text-soft"
                >{words.number(tray.uses_ml_d, 'volume_ml')} a day from {mixes[
                  tray.mix
                ]}{tray.reservoir_ml > 0 ? ' over a reservoir' : ''}; {words.number(
                  tray.wet_kg,
                  'mass_kg',
                )} wet, {words.number(tray.light_kg, 'mass_kg')} when it wants water</span
              ></span
            >
            <span class="text-right whitespace-nowrap"
              >{#if tray.due}{words.shortDate(tray.due)}{:else if tray.lasts_days == null}over a
                month{:else}every
                {words.number(Math.max(1, Math.floor(tray.lasts_days)), 'days')}{/if}</span
            >
          </li>
        {:else}
          <li class="text-soft">Nothing stands indoors on this day.</li>
        {/each}
      </ul>
    {/if}
  </details>
</section>
