<script lang="ts">
  // The trays of a bay, what they go through, and moving one elsewhere.
  import type { BayOnDay } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';
  import ChoiceField from '../../fields/ChoiceField.svelte';
  import { swap, turn } from '../trays/move';
  import StandIn from '../trays/StandIn.svelte';

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

  /** The tray for which another bay is being chosen. */
  let moving = $state('');
  /** The tray for which another to swap with is being chosen. */
  let swapping = $state('');
  const others = $derived(
    (own: string) =>
      Object.fromEntries([
        ['', 'choose a tray'],
        ...(bench.room?.bays ?? []).flatMap(({ name, trays }) =>
          trays
            .filter((tray) => tray.tray !== own)
            .map((tray) => [tray.tray, `${tray.label}, ${name}`]),
        ),
      ]) as Record<string, string>,
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
            )} tall{/if}{#if dates}; sown {words.shortDate(dates.sow)}{#if dates.emerge}, {dates.emerge >
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
      {#if moving === tray.tray}
        <StandIn
          label="Stand {tray.label} in"
          tray={tray.tray}
          stage={tray.stage}
          now="{bay.bay.place}/{bay.bay.tier}"
          ondone={() => (moving = '')}
        />
      {:else if swapping === tray.tray}
        <ChoiceField
          label="Swap {tray.label} with"
          value=""
          choices={others(tray.tray)}
          onset={(other) => {
            swapping = '';
            if (other) void swap(tray.tray, other);
          }}
        />
      {:else}
        <div class="-ml-2 flex flex-wrap">
          <button
            class="quiet text-sm text-teal!"
            aria-label="Move {tray.label} to another bay"
            onclick={() => (moving = tray.tray)}>Move it…</button
          >
          <button
            class="quiet text-sm text-teal!"
            aria-label="Turn {tray.label} a quarter"
            onclick={() => void turn(tray.tray)}>Turn it</button
          >
          <button
            class="quiet text-sm text-teal!"
            aria-label="Swap {tray.label} with another tray"
            onclick={() => (swapping = tray.tray)}>Swap it…</button
          >
        </div>
      {/if}
    </li>
  {/each}
</ul>
