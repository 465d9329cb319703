<script lang="ts">
  // The hours in which lamps should be off, and those in which a kWh is cheap.
  import { api, Refused, type ClockSpan, type Site } from '../api/client';
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

  let input: HTMLInputElement | undefined = $state();
  let problem = $state('');
  const MOST_BYTES = 100_000;
  /** A tariff by the hour from a file: read whole, or not at all. */
  async function readTariff() {
    const file = input?.files?.[0];
    if (!file) return;
    problem = '';
    try {
      if (file.size > MOST_BYTES) throw new Error('a tariff has a few dozen rows');
      const prices = await api.tariff(await file.text());
      bench.keep(
        setOptional('/site/by_hour', prices, site.by_hour != null),
        `prices by the hour from ${file.name}`,
      );
    } catch (error) {
      problem =
        error instanceof Refused
          ? words.refusal(error.problem)
          : `${file.name}: ${error instanceof Error ? error.message : String(error)}`;
    }
    input!.value = '';
  }

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
  <div>
    {#if site.by_hour}
      <p>
        Prices by the hour, from {words.number(
          Math.min(...site.by_hour.workday, ...(site.by_hour.weekend ?? [])),
          'money',
        )} to {words.number(
          Math.max(...site.by_hour.workday, ...(site.by_hour.weekend ?? [])),
          'money',
        )}{site.by_hour.weekend ? ', others at weekends' : ''}. They win over the prices above.
      </p>
      <button
        class="quiet mt-1 border-line!"
        onclick={() =>
          bench.keep(setOptional('/site/by_hour', undefined, true), 'no prices by the hour')}
        >Remove prices by the hour</button
      >
    {:else}
      <button class="quiet border-line!" onclick={() => input?.click()}
        >Prices by the hour from a file (CSV)</button
      >
      <p class="mt-1 text-sm text-soft">
        Rows of days (workday, weekend or all), from, to and price, such as: all, 23:00, 7:00, 0.19.
      </p>
    {/if}
    <input
      bind:this={input}
      type="file"
      accept=".csv,text/csv,text/plain"
      class="hidden"
      aria-label="Tariff file"
      onchange={() => void readTariff()}
    />
    {#if problem}<p class="mt-1 text-sm text-wine" role="alert">{problem}</p>{/if}
  </div>
</div>
