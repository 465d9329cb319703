<script lang="ts">
  // The hours in which lamps should be off, and those in which a kWh is cheap.
  import type { ClockSpan, Site } from '../api/client';
  import { replace, setOptional } from '../bench/edits';
  import NumberField from '../fields/NumberField.svelte';
  import TimeField from '../fields/TimeField.svelte';
  import { bench } from '../bench/workbench.svelte';

  const { site }: { site: Site } = $props();

  const words = $derived(bench.words);
  const starts = $derived(bench.facts.forms?.starts);

  const span = $derived(
    (s: ClockSpan) => `${words.number(s.from_h, 'clock_h')} to ${words.number(s.to_h, 'clock_h')}`,
  );

  function setQuiet(quiet: ClockSpan | undefined) {
    bench.keep(
      setOptional('/site/quiet', quiet, site.quiet != null),
      quiet ? `quiet hours from ${span(quiet)}` : 'no quiet hours',
    );
  }
  function setCheap(cheap: Site['cheap']) {
    bench.keep(
      setOptional('/site/cheap', cheap ?? undefined, site.cheap != null),
      cheap ? `cheap hours from ${span(cheap.hours)}` : 'the same price all day',
    );
  }
</script>

<div class="mt-2 flex flex-col gap-3">
  {#if site.quiet}
    {@const quiet = site.quiet}
    <div class="flex flex-wrap items-end gap-3">
      <TimeField
        label="Quiet from"
        hour={quiet.from_h}
        onset={(from_h) => setQuiet({ ...quiet, from_h })}
      />
      <TimeField label="to" hour={quiet.to_h} onset={(to_h) => setQuiet({ ...quiet, to_h })} />
      <button class="quiet border-line!" onclick={() => setQuiet(undefined)}
        >Remove quiet hours</button
      >
    </div>
  {:else}
    <button class="quiet self-start border-line!" onclick={() => setQuiet(starts?.night)}
      >Set quiet hours (lamps off)</button
    >
  {/if}
  {#if site.cheap}
    {@const cheap = site.cheap}
    <div class="flex flex-wrap items-end gap-3">
      <TimeField
        label="Cheap from"
        hour={cheap.hours.from_h}
        onset={(from_h) => setCheap({ ...cheap, hours: { ...cheap.hours, from_h } })}
      />
      <TimeField
        label="until"
        hour={cheap.hours.to_h}
        onset={(to_h) => setCheap({ ...cheap, hours: { ...cheap.hours, to_h } })}
      />
      <NumberField
        label="A kWh then, {site.currency}"
        value={cheap.price_per_kwh}
        quantity="money"
        field="/site/cheap/price_per_kwh"
        onset={(price) =>
          bench.keep(
            [replace('/site/cheap/price_per_kwh', price)],
            `a cheap kWh costs ${words.number(price, 'money')}`,
          )}
      />
      <button class="quiet border-line!" onclick={() => setCheap(undefined)}
        >Remove cheap hours</button
      >
    </div>
  {:else}
    <button
      class="quiet self-start border-line!"
      onclick={() =>
        starts &&
        setCheap({
          hours: starts.night,
          price_per_kwh: site.price_per_kwh * starts.cheap_share,
        })}>Add cheap-rate hours</button
    >
  {/if}
</div>
