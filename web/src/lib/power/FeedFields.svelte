<script lang="ts">
  // The figures of one feed: what it may carry, by its label.
  import type { Feed, FeedLoad } from '../api/client';
  import { replace } from '../bench/edits';
  import { bench } from '../bench/workbench.svelte';
  import CheckField from '../fields/CheckField.svelte';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import DateField from '../fields/DateField.svelte';
  import NameField from '../fields/NameField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import { cords } from './cords.svelte';
  import FeedDay from './FeedDay.svelte';
  import { sort } from './loads';

  const { feed, index, load }: { feed: Feed; index: number; load: FeedLoad | undefined } = $props();
  const path = $derived(`/wiring/feeds/${index}`);
  const what = $derived(sort(feed));
  const figures = $derived(Object.values(feed.kind)[0] as Record<string, unknown>);
  const words = $derived(bench.words);
  const set = (field: string, value: unknown, word: string) =>
    bench.keep(
      [{ op: 'add', path: `${path}/kind/${what}/${field}`, value }],
      `${feed.name}: ${word}`,
    );
  const numbers = {
    circuit: [['breaker_a', 'Breaker', 'current_a']],
    socket: [
      ['outlets', 'Outlets', 'count'],
      ['fuse_a', 'Fuse in a plug', 'current_a'],
    ],
    strip: [
      ['rating_w', 'May carry', 'power_w'],
      ['outlets', 'Outlets', 'count'],
    ],
    timer: [
      ['rating_w', 'May switch', 'power_w'],
      ['outlets', 'Outlets', 'count'],
    ],
    chain: [
      ['most_lamps', 'Most lamps linked', 'count'],
      ['most_w', 'Most power', 'power_w'],
    ],
  } as const;
  const checks = {
    circuit: [['rcd', 'Has a residual-current device (RCD, GFCI)']],
    socket: [],
    strip: [
      ['surge', 'Guards against surges'],
      ['switched', 'Has a switch'],
    ],
    timer: [['weatherproof', 'Made for damp and outdoors']],
    chain: [],
  } as const;
  const clocks = {
    dial15: 'dial, a segment each 15 min',
    dial30: 'dial, a segment each 30 min',
    digital: 'digital',
    smart_plug: 'smart plug',
  };
  const optional = ['fuse_a', 'most_lamps', 'most_w'];
</script>

<div class="mt-2 rounded-xl border p-3" data-testid="feed">
  <div class="grid grid-cols-2 gap-2 sm:grid-cols-3">
    <NameField
      label="Name"
      value={feed.name}
      onset={(name) => bench.keep([replace(`${path}/name`, name)], `called ${name}`)}
    />
    {#each numbers[what] as [field, label, quantity] (field)}
      <NumberField
        {label}
        value={(figures[field] as number | null | undefined) ?? undefined}
        {quantity}
        field={`/wiring/feeds/kind/${what}/${field}`}
        onset={(value) => set(field, value, `${label} ${words.number(value, quantity)}`)}
        onclear={optional.includes(field)
          ? () =>
              bench.keep(
                [{ op: 'remove', path: `${path}/kind/${what}/${field}` }],
                `${feed.name}: no ${label}`,
              )
          : undefined}
      />
    {/each}
    {#if what === 'timer'}
      <ChoiceField
        label="Set by"
        value={figures.clock as keyof typeof clocks}
        choices={clocks}
        onset={(clock) => set('clock', clock, clocks[clock])}
      />
    {/if}
    {#if what === 'circuit' && figures.rcd}
      {#if figures.rcd_tested}
        <DateField
          label="RCD test button last pressed"
          value={figures.rcd_tested as string}
          onset={(day) => set('rcd_tested', day, 'RCD tested')}
        />
      {:else if bench.date}
        <button
          class="quiet self-end border-line!"
          onclick={() => set('rcd_tested', bench.date, 'RCD tested')}
          >RCD tested on {words.date(bench.date)}</button
        >
      {/if}
    {/if}
    <NumberField
      label="Over the floor"
      value={feed.height_mm ?? 0}
      quantity="length_mm"
      field="/wiring/feeds/height_mm"
      onset={(mm) =>
        bench.keep(
          [{ op: 'add', path: `${path}/height_mm`, value: mm }],
          `${feed.name} hangs higher or lower`,
        )}
    />
  </div>
  {#if load}<FeedDay {load} />{/if}
  {#each checks[what] as [field, label] (field)}
    <CheckField
      {label}
      value={figures[field] === true}
      onset={(yes) => set(field, yes, `${label}: ${yes ? 'yes' : 'no'}`)}
    />
  {/each}
  <button
    class="quiet mt-2 border-line!"
    onclick={() => {
      cords.open = undefined;
      void bench.edit({ remove_feed: { feed: feed.id } });
    }}>Take it out</button
  >
</div>
