<script lang="ts">
  // The air of a room: by day, by night and how damp, and what it is from later dates on.
  import type { Air, AirFrom } from '../api/client';
  import { replace, setOptional } from '../bench/edits';
  import DateField from '../fields/DateField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import { bench } from '../bench/workbench.svelte';
  import { plusDays } from '../say/dates';

  interface Props {
    /** Where the room's air stands in the plan: "/site" has "/site/air" and "/site/air_from". */
    path: string;
    /** Whose air it is, as words go on: "the room". */
    whose: string;
    air: Air;
    changes: AirFrom[] | undefined;
  }
  const { path, whose, air, changes }: Props = $props();

  const words = $derived(bench.words);
  const all = $derived(changes ?? []);
  const latest = $derived(all.length > 0 ? all[all.length - 1] : undefined);

  const celsius = (c: number) => words.number(c, 'temperature_c');

  function keep(list: AirFrom[], label: string) {
    bench.keep(
      setOptional(`${path}/air_from`, list.length > 0 ? list : undefined, changes !== undefined),
      label,
    );
  }

  /** A month after the last change, or in the middle of the season: a first guess to be set right. */
  function add() {
    const from = latest ? plusDays(latest.from, 30) : (bench.draft?.site.last_frost ?? '');
    const next = { from, air: { ...(latest?.air ?? air) } };
    keep([...all, next], `the air of ${whose} changes on ${words.date(from)}`);
  }
</script>

{#snippet temperatures(own: Air, at: string)}
  {#each [['Air by day', 'day_c'], ['Air by night', 'night_c']] as const as [label, field] (field)}
    <NumberField
      {label}
      value={own[field]}
      quantity="temperature_c"
      field="/site/air/{field}"
      onset={(c) =>
        bench.keep(
          [replace(`${at}/${field}`, c)],
          `${label.toLowerCase()} in ${whose}: ${celsius(c)}`,
        )}
    />
  {/each}
  <NumberField
    label="Humidity"
    value={own.humidity ?? undefined}
    quantity="share"
    field="/site/air/humidity"
    onset={(share) =>
      bench.keep(
        setOptional(`${at}/humidity`, share, own.humidity != null),
        `humidity of ${whose} at ${words.number(share, 'share')}`,
      )}
    onclear={() =>
      bench.keep(
        setOptional(`${at}/humidity`, undefined, own.humidity != null),
        `humidity of ${whose} left out`,
      )}
  />
{/snippet}

<div class="grid grid-cols-3 items-end gap-2">
  {@render temperatures(air, `${path}/air`)}
</div>
{#each all as change, i (i)}
  <div
    class="mt-2 rounded-lg bg-ground p-2"
    role="group"
    aria-label="Air of {whose}, change {i + 1}"
  >
    <div class="flex flex-wrap items-end justify-between gap-2">
      <DateField
        label="From"
        value={change.from}
        onset={(day) =>
          bench.keep(
            [replace(`${path}/air_from/${i}/from`, day)],
            `the air of ${whose} changes on ${words.date(day)}`,
          )}
      />
      <button
        class="quiet border-line!"
        onclick={() =>
          keep(
            all.filter((_, other) => other !== i),
            `the air of ${whose} does not change on ${words.date(change.from)}`,
          )}>Remove</button
      >
    </div>
    <div class="mt-2 grid grid-cols-3 items-end gap-2">
      {@render temperatures(change.air, `${path}/air_from/${i}/air`)}
    </div>
  </div>
{/each}
<button class="quiet mt-2 self-start border-line!" onclick={add}
  >{all.length > 0 ? 'And from another date' : 'Other air from a later date'}</button
>
