<script lang="ts">
  // The last frost by a record of daily minima: a file is looked at first, and kept whole or not at
  // all.
  import { api, Refused } from '../api/client';
  import type { Preview, Site, Understanding } from '../api/client';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import { setLastFrost, setOptional } from '../bench/edits';
  import { bench } from '../bench/workbench.svelte';

  const { site }: { site: Site } = $props();

  /** A longer file is no record of a garden's days; the server takes no more either. */
  const MOST_BYTES = 3_500_000;
  const words = $derived(bench.words);
  const units = { c: '°C', f: '°F' };
  const cautions = {
    bold: 'bold: frost comes later in 4 years out of 5',
    even: 'even: in half of years',
    careful: 'careful: in 1 year out of 10',
  };
  let unit = $state<'c' | 'f'>('c');
  let threshold = $state(0);
  let caution = $state<keyof typeof cautions>('even');
  /** How far a typical year's last frost is taken to stray; our own estimate to begin with. */
  let spread = $state(10);
  let text = $state('');
  let name = $state('');
  let preview: Preview | undefined = $state.raw();
  let problem = $state('');
  const record = $derived(site.frost);

  async function look() {
    problem = '';
    const how: Understanding = {
      name: name.slice(0, 120) || 'daily minima',
      unit,
      threshold_c: threshold,
      caution,
      spread_days: spread,
      latitude_deg: site.latitude_deg,
      year: Number((bench.draft?.season.to ?? '2027').slice(0, 4)),
    };
    try {
      preview = await api.frost(text, how);
    } catch (error) {
      preview = undefined;
      problem =
        error instanceof Refused ? error.message : 'The server cannot be reached: try again.';
    }
  }

  async function take(event: Event) {
    const input = event.currentTarget as HTMLInputElement;
    const file = input.files?.[0];
    if (!file) return;
    preview = undefined;
    if (file.size > MOST_BYTES) {
      problem = `${file.name} has ${Math.round(file.size / 1e6)} MB: a record of daily minima has less than ${MOST_BYTES / 1e6} MB. Give the days of your own years only.`;
      return;
    }
    name = file.name;
    text = await file.text();
    await look();
  }

  function again() {
    // What was understood otherwise must not be kept.
    preview = undefined;
    if (text) void look();
  }

  function keep() {
    if (!preview?.record || !preview.dates) return;
    bench.keep(
      [
        { op: 'add', path: '/site/frost', value: preview.record },
        ...setLastFrost(site, preview.dates.chosen),
      ],
      `frosts by ${preview.record.name}: last frost ${words.date(preview.dates.chosen)}`,
    );
    preview = undefined;
    text = '';
  }
</script>

{#if record}
  <p class="mt-1">
    By <b>{record.name}</b>, {record.typical ? 'one typical year' : `${record.years.length} years`},
    at {words.number(record.threshold_c, 'temperature_c')} or below
  </p>
  <button
    class="quiet -ml-2 text-sm"
    onclick={() => {
      bench.keep(setOptional('/site/frost', undefined, true), `no record of frosts any more`);
    }}>Leave the record out, keep the day</button
  >
{:else}
  <p class="mt-1 text-sm text-soft">
    Daily lows of your own years (CSV, a date and a minimum in each row), or an EPW weather file,
    tell how sure the last frost is. A file of a typical year gives its day alone.
  </p>
{/if}
<div class="mt-2 flex flex-wrap items-end gap-3">
  <ChoiceField
    label="Minima are in"
    value={unit}
    choices={units}
    onset={(to) => {
      unit = to;
      again();
    }}
  />
  <NumberField
    label="Frost at or below"
    value={threshold}
    quantity="temperature_c"
    field="/calc/frost/threshold_c"
    onset={(c) => {
      threshold = c;
      again();
    }}
  />
  <ChoiceField
    label="How cautious"
    value={caution}
    choices={cautions}
    onset={(to) => {
      caution = to;
      again();
    }}
  />
  <label class="min-w-0 basis-full text-sm text-soft"
    >File of daily lows
    <input
      type="file"
      accept=".csv,.txt,.tsv,.epw,text/csv"
      class="block w-full max-w-full min-w-0 overflow-hidden rounded-lg border-line bg-raised text-sm text-ink"
      onchange={(event) => void take(event)}
    /></label
  >
</div>
{#if problem}<p class="mt-2 text-wine" role="alert">{problem}</p>{/if}
{#if preview}
  <div class="mt-3" data-testid="frost-preview">
    <p>
      {preview.days} days{#if preview.record?.typical}
        of one typical year{:else if preview.from && preview.to}, {preview.from} to {preview.to}{/if}{#if preview.coldest_c != null},
        the coldest {words.number(preview.coldest_c, 'temperature_c')}{/if}
    </p>
    {#if preview.problem_rows > 0}
      <p class="text-wine" role="alert">
        {preview.problem_rows === 1 ? 'One row is' : `${preview.problem_rows} rows are`} wrong; nothing
        is taken until the file is put right.
      </p>
      <ol class="max-h-60 overflow-y-auto text-sm">
        {#each preview.problems as row, i (i)}
          <li class="border-t py-1">
            <b>Row {row.row}</b>: {words.say(row.problem)}; {words.say(row.remedy)}.
          </li>
        {/each}
      </ol>
    {/if}
    {#each preview.notes as note, i (i)}
      <p class="text-sm">{words.say(note)}.</p>
    {/each}
    {#if preview.record?.typical}
      <div class="mt-2">
        <NumberField
          label="Last frost strays by (standard deviation)"
          value={spread}
          quantity="days"
          field="/calc/frost/spread_days"
          onset={(days) => {
            spread = days;
            again();
          }}
        />
      </div>
    {/if}
    {#if preview.dates && preview.record}
      <dl class="mt-1 grid grid-cols-3 gap-2">
        {#each [['1 year of 10', preview.dates.p10], ['every other', preview.dates.p50], ['9 of 10', preview.dates.p90]] as [label, day] (label)}
          <div>
            <dt class="text-sm text-soft">over in {label}</dt>
            <dd class="font-semibold">{words.shortDate(day!)}</dd>
          </div>
        {/each}
      </dl>
      <p class="text-sm text-soft">
        {#if preview.dates.first}
          <span
            >the first frost of autumn by {words.shortDate(preview.dates.first)} in every other year;</span
          >
        {/if}
        <span
          >{preview.record.typical
            ? 'by one typical year'
            : `by ${preview.dates.years} years`}</span
        >
      </p>
      <button class="quiet mt-1 border-line! font-semibold" onclick={keep}
        >Take {words.shortDate(preview.dates.chosen)} as the last frost</button
      >
    {/if}
  </div>
{/if}
