<script lang="ts">
  // In what a variety differs from its kind: what is left empty is as the kind has it.
  import { api } from '../api/client';
  import type { Crop, Schemas, Sowing } from '../api/client';
  import { setOptional } from '../bench/edits';
  import { bench } from '../bench/workbench.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import Traits from '../seeds/Traits.svelte';

  type Differs = Schemas['Differs'];
  const { sowing, index, name }: { sowing: Sowing; index: number; name: string } = $props();

  const words = $derived(bench.words);
  const fields = [
    ['height_out_mm', 'Height at planting out', 'length_mm'],
    ['emerges_mm', 'Height when just up', 'length_mm'],
    ['spacing_mm', 'Apart in the tray', 'length_mm'],
    ['weeks_indoors', 'Weeks indoors', 'weeks'],
    ['weeks_after_last_frost', 'Weeks after frost', 'weeks'],
    ['pot_on_weeks', 'Potted on after', 'weeks'],
    ['root_zone_c', 'Root zone', 'temperature_c'],
    ['least_air_c', 'Coldest air it bears', 'temperature_c'],
    ['grows_over_c', 'Grows in air over', 'temperature_c'],
    ['dli_low_mol_m2_d', 'Light, least', 'dli_mol_m2_d'],
    ['dli_high_mol_m2_d', 'Light, most', 'dli_mol_m2_d'],
    ['photoperiod_most_h', 'Longest day', 'hours'],
    ['cold_weeks', 'Cold first', 'weeks'],
  ] as const;
  let kinds: Crop[] = $state.raw([]);
  let opened = $state(false);
  const kind = $derived(
    (bench.draft?.crops ?? []).find((crop) => crop.id === sowing.crop) ??
      kinds.find((crop) => crop.id === sowing.crop),
  );
  const differs = $derived(sowing.differs ?? {});
  const count = $derived(Object.keys(differs).length);

  function open(event: Event) {
    opened = (event.currentTarget as HTMLDetailsElement).open;
    if (!opened || kinds.length > 0) return;
    api.crops().then(
      (library) => (kinds = library.crops),
      () => (kinds = []),
    );
  }

  function set(field: keyof Differs, value: unknown) {
    const next: Record<string, unknown> = { ...differs };
    if (value === undefined) delete next[field];
    else next[field] = value;
    const none = Object.keys(next).length === 0;
    bench.keep(
      setOptional(`/sowings/${index}/differs`, none ? undefined : next, sowing.differs != null),
      `${field.replaceAll('_', ' ').replace(/ (mm|c|h|mol m2 d)$/, '')} of ${name}`,
    );
  }
</script>

<details class="border-t pt-2" ontoggle={open} data-testid="variety">
  <summary class="cursor-pointer">
    This variety differs from its kind{count > 0 ? ` in ${count} way${count > 1 ? 's' : ''}` : ''}
  </summary>
  {#if opened && kind}
    <p class="mt-1 text-sm text-soft">Left empty, a figure is that of {kind.name}.</p>
    <div class="mt-1 grid grid-cols-2 gap-x-2 gap-y-1">
      {#each fields as [field, label, quantity] (field)}
        <NumberField
          {label}
          value={differs[field] ?? undefined}
          {quantity}
          field="/sowings/{index}/differs/{field}"
          none={words.bare(kind[field] ?? 0, quantity)}
          onset={(value) => set(field, value)}
          onclear={() => set(field, undefined)}
        />
      {/each}
    </div>
    <div class="mt-1">
      <Traits
        crop={{
          vigour: differs.vigour ?? kind.vigour,
          habit: differs.habit ?? kind.habit ?? 'upright',
          germinates_in: differs.germinates_in ?? kind.germinates_in,
          emergence: differs.emergence ?? kind.emergence,
        }}
        onset={(field, value) => set(field, value)}
      />
    </div>
    {#if count > 0}
      <button
        class="quiet mt-1 border-line! text-sm"
        onclick={() =>
          bench.keep(
            setOptional(`/sowings/${index}/differs`, undefined, true),
            `${name} is as its kind`,
          )}>As its kind in everything</button
      >
    {/if}
  {/if}
</details>
