<script lang="ts">
  // The days of a sowing that the gardener fixes: the day to sow and whether it is sown, the day to
  // plant out, and until when it is covered then. What is left alone follows from the frost.
  import type { Sowing, SowingDates } from '../api/client';
  import { setOptional } from '../bench/edits';
  import { bench } from '../bench/workbench.svelte';
  import CheckField from '../fields/CheckField.svelte';
  import DateField from '../fields/DateField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import { plusDays } from '../say/dates';

  interface Props {
    dates: SowingDates;
    sowing: Sowing;
    index: number;
  }
  const { dates, sowing, index }: Props = $props();

  const words = $derived(bench.words);
  const tray = $derived(
    bench.draft?.trays.find((tray) => tray.parts.some((part) => part.sowing === sowing.id))?.id,
  );
  type Day = 'sow_on' | 'out_on' | 'covered_until';
  const days = $derived<[Day, string, string][]>([
    // What is in the log is corrected there.
    ...(dates.sown_logged
      ? []
      : ([['sow_on', sowing.sown ? 'Sown on' : 'I sow on', dates.sow]] as [Day, string, string][])),
    ['out_on', 'I plant out on', dates.out],
    ...(sowing.covered_until != null
      ? ([['covered_until', 'Covered outdoors until', dates.out]] as [Day, string, string][])
      : []),
  ]);
  /** A fortnight under a cover is what most need. */
  const COVERED_DAYS = 14;

  const at = (field: string) => `/sowings/${index}/${field}`;
  const set = (field: Day | 'sown', value: string | true | undefined) =>
    setOptional(at(field), value, sowing[field] !== undefined);

  function fix(field: Day, label: string, day: string) {
    bench.keep(set(field, day), `${dates.name}: ${label.toLowerCase()} ${words.shortDate(day)}`);
  }

  function free(field: Day) {
    const patch = set(field, undefined);
    // Without its day nothing can be marked as sown.
    if (field === 'sow_on') patch.push(...set('sown', undefined));
    bench.keep(patch, `${dates.name}: the days follow from the frost again`);
  }

  function wait(later: number | undefined) {
    const field = 'pot_on_later_days';
    bench.keep(
      setOptional(at(field), later && Math.round(later), sowing[field] !== undefined),
      later
        ? `${dates.name}: potted on ${words.number(later, 'days')} later`
        : `${dates.name}: potted on when roots fill the cells`,
    );
  }

  function markSown(yes: boolean) {
    const patch = yes ? [...set('sow_on', sowing.sow_on ?? dates.sow), ...set('sown', true)] : [];
    bench.keep(
      yes ? patch : set('sown', undefined),
      yes ? `${dates.name} sown on ${words.shortDate(dates.sow)}` : `${dates.name} not sown yet`,
    );
  }
</script>

<div class="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2" data-testid="sowing-days">
  {#if dates.sown_logged}
    <p class="w-full">
      Sown on {words.date(dates.sow)}, as you logged.
      <a class="underline" href="/log?tray={tray ?? ''}">Look back, or correct it</a>
    </p>
  {/if}
  {#each days as [field, label, day] (field)}
    <div class="flex flex-wrap items-end gap-2">
      <DateField
        {label}
        value={sowing[field] ?? day}
        onset={(chosen) => fix(field, label, chosen)}
      />
      {#if sowing[field] != null}
        <button
          class="quiet mb-0.5 text-sm"
          aria-label="{label}: let the frost decide"
          onclick={() => free(field)}
          >{field === 'covered_until' ? 'No cover' : 'Let the frost decide'}</button
        >
      {/if}
    </div>
  {/each}
  {#if sowing.covered_until == null}
    <button
      class="quiet self-start border-line! text-sm"
      onclick={() =>
        fix('covered_until', 'Covered outdoors until', plusDays(dates.out, COVERED_DAYS))}
      >Cover it outdoors at first</button
    >
  {/if}
  {#if dates.pot_on != null || sowing.pot_on_later_days != null}
    <NumberField
      label="Potted on later by"
      value={sowing.pot_on_later_days ?? undefined}
      field="/sowings/0/pot_on_later_days"
      quantity="days"
      none="as roots fill the cells"
      onset={(later) => wait(later)}
      onclear={() => wait(undefined)}
    />
  {/if}
  {#if !dates.sown_logged}
    <CheckField
      label="It is sown: this day stays, whatever else changes"
      value={sowing.sown ?? false}
      onset={markSown}
    />
  {/if}
</div>
