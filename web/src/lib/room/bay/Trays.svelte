<script lang="ts">
  // The trays of a bay, what they go through, and moving one elsewhere.
  import type { BayOnDay, TrayOnDay } from '../../api/client';
  import { bench } from '../../bench/workbench.svelte';
  import ChoiceField from '../../fields/ChoiceField.svelte';

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
  const bayNames = $derived(
    Object.fromEntries(
      (bench.room?.bays ?? [])
        .filter(
          ({ bay }) =>
            !bench.places.find((p) => p.id === bay.place)?.tiers.find((t) => t.id === bay.tier)
              ?.storage,
        )
        .map(({ bay, name }) => [`${bay.place}/${bay.tier}`, name]),
    ),
  );

  /** The tray for which another bay is being chosen. */
  let moving = $state('');

  async function moveTray(tray: TrayOnDay, to: string) {
    const [place, tier] = to.split('/');
    const stage = tray.stage;
    moving = '';
    if (!place || !tier) return;
    await bench.edit({ move_tray: { tray: tray.tray, stage, bay: { place, tier } } });
  }
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
        <ChoiceField
          label="Stand {tray.label} from now on in"
          value="{bay.bay.place}/{bay.bay.tier}"
          choices={bayNames}
          onset={(to) => moveTray(tray, to)}
        />
      {:else}
        <button
          class="quiet -ml-2 text-sm text-teal!"
          aria-label="Move {tray.label} to another bay"
          onclick={() => (moving = tray.tray)}>Move it…</button
        >
      {/if}
    </li>
  {/each}
</ul>
