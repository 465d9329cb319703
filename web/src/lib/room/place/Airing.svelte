<script lang="ts">
  // How what is closed is aired: a door ajar or a flap turned back, by the clock or by its warmth.
  import type { Place } from '../../api/client';
  import { replace, setOptional } from '../../bench/edits';
  import { bench } from '../../bench/workbench.svelte';
  import ChoiceField from '../../fields/ChoiceField.svelte';
  import NumberField from '../../fields/NumberField.svelte';
  import { airings, begun, type Aired } from './airing';

  const { place, path }: { place: Place; path: string } = $props();
  const words = $derived(bench.words);
  const airing = $derived(place.airing ?? undefined);
  const aired = $derived<Aired>(
    airing === undefined || airing.hours === 0 ? 'never' : airing.over_c == null ? 'hours' : 'warm',
  );
  const fields = $derived(
    airing === undefined || aired === 'never'
      ? []
      : ([
          ['Opened by', 'gap_mm', airing.gap_mm, 'length_mm'],
          ...(aired === 'warm'
            ? [['Over', 'over_c', airing.over_c!, 'temperature_c'] as const]
            : []),
          ...(aired === 'hours'
            ? ([
                ['From', 'from_h', airing.from_h, 'clock_h'],
                ['For', 'hours', airing.hours, 'hours'],
              ] as const)
            : []),
        ] as const),
  );
</script>

<section aria-label="Airing">
  <h3>Airing</h3>
  <div class="mt-1 grid grid-cols-2 items-end gap-2">
    <div class="col-span-2">
      <ChoiceField
        label="Door or flap"
        value={aired}
        choices={airings}
        onset={(to) =>
          bench.keep(
            setOptional(`${path}/airing`, begun(to), airing !== undefined),
            `${place.name}: ${airings[to]}`,
          )}
      />
    </div>
    {#each fields as [label, field, value, quantity] (field)}
      <NumberField
        {label}
        {value}
        {quantity}
        onset={(to) =>
          bench.keep(
            [replace(`${path}/airing/${field}`, to)],
            `airing of ${place.name}: ${words.number(to, quantity)}`,
          )}
      />
    {/each}
  </div>
</section>
