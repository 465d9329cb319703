<script lang="ts">
  // The trays of a bay and what they go through, with what a hand may do to each.
  import type { BayOnDay } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';
  import { grownWords } from './plant';
  import TrayActions from '../trays/TrayActions.svelte';

  const { bay }: { bay: BayOnDay } = $props();
  const words = $derived(bench.words);
  const stages = {
    germinate: 'germinating',
    grow: 'growing',
    harden: 'hardening off',
    out: 'planted out',
  } as const;
  const datesOf = $derived((sowing: string) =>
    bench.assessment?.sowings.find((s) => s.sowing === sowing),
  );
</script>

<ul class="flex flex-col gap-2">
  {#each bay.trays as tray (tray.tray)}
    <li class="border-t pt-2">
      {#each tray.parts as part, i (i)}
        {@const dates = datesOf(part.sowing)}
        <p>
          {#if i === 0}<b>{tray.label}</b>{/if}
          {part.name}
        </p>
        <p class="text-sm text-soft">
          {part.stage ? stages[part.stage] : 'not sown yet'}{#if part.stage === 'grow'}, {words.number(
              part.plant_height_mm,
              'length_mm',
            )} tall{/if}{#if part.plant && part.stage === 'grow'}{#each grownWords(part.plant, words) as grown (grown)},
              {grown}{/each}{/if}{#if dates}; sown {words.shortDate(dates.sow)}{#if dates.emerge}, {dates.emerge >
              bench.date
                ? 'shows'
                : 'showed'}
              {dates.first && dates.last && dates.first !== dates.last
                ? `${words.shortDate(dates.first)} to ${words.shortDate(dates.last)}, half by `
                : ''}{words.shortDate(dates.emerge)}{/if}, out {words.shortDate(dates.out)}{/if}
        </p>
        {#if dates?.emerge && dates.quarter && part.stage === 'germinate'}
          <p class="text-sm">
            {tray.dome_mm == null
              ? `Into light by ${words.shortDate(dates.into_light ?? dates.emerge)}`
              : `Vent the dome ${words.shortDate(dates.quarter)}, lift it when all are up, ${words.shortDate(dates.last ?? dates.emerge)}; light from ${words.shortDate(dates.lamps_on ?? dates.emerge)}`}{bay.roots.find(
              (r) => r.tray === tray.tray,
            )?.mat
              ? '; then unplug the mat'
              : ''}.
          </p>
        {/if}
      {/each}
      <TrayActions {bay} {tray} />
    </li>
  {/each}
</ul>
