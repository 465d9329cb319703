<script lang="ts">
  // The crops: whether to start them indoors, when and in what; every figure with its source.
  import type { Crop, CropLibrary, Quantity } from '../api/client';
  import AsMeasured from '../learn/AsMeasured.svelte';
  import ChoiceField from '../fields/ChoiceField.svelte';
  import NameField from '../fields/NameField.svelte';
  import NumberField from '../fields/NumberField.svelte';
  import { replace } from '../bench/edits';
  import { bench } from '../bench/workbench.svelte';
  import Traits from './Traits.svelte';
  import { shell } from '../shell/shell.svelte';
  import { plain } from '../start/asked';

  const { library, crops }: { library: CropLibrary; crops: Crop[] } = $props();

  const MOST = 30;
  const starts = {
    indoors: 'start indoors',
    either: 'indoors or outdoors',
    outdoors: 'sow outdoors',
  };
  const reasons: Record<Crop['start_reason'], string> = {
    long_season: 'needs longer than the frost-free season',
    earlier: 'crops weeks earlier from an indoor start',
    small_seed: 'seed too fine or seedlings too slow for a bed',
    fast_grower: 'too quick a grower to gain from an early start',
    dislikes_moving: 'resents root disturbance',
    bears_cold: 'hardy: an early sowing outdoors does well',
  };
  const moves = { well: 'bears it well', with_care: 'small and with care', badly: 'resents it' };
  const origins = { seed: 'seed', slips: 'slips', cuttings: 'cuttings' };
  const filters = { all: 'all', ...starts, cold: 'needs cold first', own: 'your own' };
  let wanted = $state('');
  let filter: keyof typeof filters = $state('all');
  let opened = $state('');

  const own = $derived(new Set((bench.draft?.crops ?? []).map((crop) => crop.id)));
  const found = $derived(
    crops
      .filter((crop) =>
        plain(`${crop.name} ${crop.also_called?.join(' ') ?? ''}`).includes(plain(wanted.trim())),
      )
      .filter((crop) =>
        filter === 'all'
          ? true
          : filter === 'cold'
            ? crop.cold_weeks > 0
            : filter === 'own'
              ? own.has(crop.id)
              : crop.start === filter,
      ),
  );
  type Field = readonly [keyof Crop, string, Quantity];
  const fields: Field[] = [
    ['weeks_indoors', 'Weeks indoors', 'weeks'],
    ['weeks_after_last_frost', 'Weeks after frost', 'weeks'],
    ['ready_weeks', 'Ready after, for autumn', 'weeks'],
    ['hardening_days', 'Hardening off', 'days'],
    ['root_zone_c', 'Root zone', 'temperature_c'],
    ['dli_low_mol_m2_d', 'Light, least', 'dli_mol_m2_d'],
    ['dli_high_mol_m2_d', 'Light, most', 'dli_mol_m2_d'],
    ['photoperiod_most_h', 'Longest day', 'hours'],
    ['least_air_c', 'Coldest air it bears', 'temperature_c'],
    ['grows_over_c', 'Grows in air over', 'temperature_c'],
    ['emerges_mm', 'Height when just up', 'length_mm'],
    ['height_out_mm', 'Height at planting out', 'length_mm'],
    ['cut_back_mm', 'Tops cut back to', 'length_mm'],
    ['sow_depth_mm', 'Sown deep', 'length_mm'],
    ['soak_h', 'Soaked', 'hours'],
    ['cold_weeks', 'Cold first', 'weeks'],
    ['dark_days', 'Days of dark once up', 'days'],
    ['cell_ml', 'Cell', 'volume_ml'],
    ['pot_on_ml', 'Pot after', 'volume_ml'],
    ['pot_on_weeks', 'Potted on after', 'weeks'],
    ['plants_per_cell', 'Plants in a cell', 'count'],
    ['spacing_mm', 'Apart in the tray', 'length_mm'],
    ['losses', 'Losses', 'share'],
    ['seedlings_per_seed', 'Seedlings from a seed', 'plain'],
  ];

  function set(crop: Crop, field: keyof Crop, value: unknown) {
    const list = bench.draft?.crops ?? [];
    const index = list.findIndex((other) => other.id === crop.id);
    const whole = field === 'plants_per_cell' || field === 'hardening_days';
    const changed = { ...crop, [field]: whole ? Math.round(value as number) : value };
    bench.keep(
      index >= 0
        ? [replace(`/crops/${index}`, changed)]
        : [{ op: 'add', path: '/crops', value: [...list, changed] }],
      `${field.replaceAll('_', ' ')} of ${crop.name}`,
    );
  }

  function reset(crop: Crop) {
    const list = (bench.draft?.crops ?? []).filter((other) => other.id !== crop.id);
    bench.keep(
      list.length > 0
        ? [{ op: 'add', path: '/crops', value: list }]
        : [{ op: 'remove', path: '/crops' }],
      `${crop.name} as the library has it`,
    );
  }

  function copy(crop: Crop) {
    const ids = new Set(crops.map((other) => other.id));
    let id = `${crop.id}-own`.slice(0, 36);
    for (let n = 2; ids.has(id); n++) id = `${crop.id}-own-${n}`.slice(0, 38);
    const list = bench.draft?.crops ?? [];
    bench.keep(
      [
        {
          op: 'add',
          path: '/crops',
          value: [...list, { ...crop, id, name: `${crop.name}, own kind` }],
        },
      ],
      `a crop of one's own, like ${crop.name}`,
    );
    opened = id;
  }
</script>

<div class="flex flex-wrap items-end gap-3">
  <label class="text-sm text-soft"
    >Crop
    <input
      type="search"
      class="block w-44 rounded-lg border-line bg-raised px-2 py-1 text-base text-ink"
      bind:value={wanted}
    /></label
  >
  <ChoiceField label="Only" value={filter} choices={filters} onset={(to) => (filter = to)} />
  <span class="pb-1 text-sm text-soft">{found.length} of {crops.length}</span>
</div>
<ul class="mt-2" data-testid="crops">
  {#each found.slice(0, MOST) as crop (crop.id)}
    <li class="border-t">
      <button
        class="flex w-full flex-wrap items-baseline gap-x-2 py-1.5 text-left"
        aria-expanded={opened === crop.id}
        onclick={() => (opened = opened === crop.id ? '' : crop.id)}
      >
        <b>{crop.name}</b>
        <span
          class="rounded-full px-2 text-sm {crop.start === 'outdoors'
            ? 'bg-teal-soft'
            : crop.start === 'indoors'
              ? 'bg-straw-soft'
              : 'bg-sage-soft'}">{starts[crop.start]}</span
        >
        <span class="text-sm text-soft">{reasons[crop.start_reason]}</span>
      </button>
      {#if opened === crop.id}
        <div class="pb-3">
          <button
            class="quiet border-line! font-semibold"
            onclick={() => (shell.sowing = { crop: crop.id })}>Sow some</button
          >
          {#if crop.note}<p class="mt-1">{crop.note}</p>{/if}
          {#if crop.comes_up_here}
            <AsMeasured
              learned={crop.comes_up_here}
              quantity="share"
              before="Here it comes up at"
              after="of the pace that the table has"
              back="As the table has it"
              onback={() => set(crop, 'comes_up_here', undefined)}
            />
          {/if}
          {#if crop.tall_here}
            <AsMeasured
              learned={crop.tall_here}
              quantity="share"
              before="Here it grows to"
              after="of the height that its figures have"
              back="As its figures have it"
              onback={() => set(crop, 'tall_here', undefined)}
            />
          {/if}
          <div class="mt-2 grid grid-cols-2 gap-2">
            <NameField label="Name" value={crop.name} onset={(name) => set(crop, 'name', name)} />
            <NameField
              label="Also called"
              value={crop.also_called?.join(', ') ?? ''}
              onset={(names) =>
                set(
                  crop,
                  'also_called',
                  names
                    .split(',')
                    .map((n) => n.trim())
                    .filter(Boolean),
                )}
            />
          </div>
          <div class="mt-1">
            <Traits {crop} onset={(field, value) => set(crop, field, value)} />
          </div>
          <div class="mt-1 grid grid-cols-2 gap-x-2 gap-y-1">
            <ChoiceField
              label="Started"
              value={crop.start}
              choices={starts}
              onset={(to) => set(crop, 'start', to)}
            />
            <ChoiceField
              label="Because it"
              value={crop.start_reason}
              choices={reasons}
              onset={(to) => set(crop, 'start_reason', to)}
            />
            <ChoiceField
              label="Being moved"
              value={crop.transplants}
              choices={moves}
              onset={(to) => set(crop, 'transplants', to)}
            />
            <ChoiceField
              label="Grown from"
              value={crop.grown_from}
              choices={origins}
              onset={(to) => set(crop, 'grown_from', to)}
            />
            <NumberField
              label="Seed lives"
              value={typeof crop.seed_life_years === 'number' ? crop.seed_life_years : undefined}
              quantity="years"
              field="/crops/*/seed_life_years"
              none="unknown"
              onset={(value) => set(crop, 'seed_life_years', value)}
              onclear={() => set(crop, 'seed_life_years', 'unknown')}
            />
            <NumberField
              label="Bolts under"
              value={typeof crop.bolts_under_c === 'number' ? crop.bolts_under_c : undefined}
              quantity="temperature_c"
              field="/crops/*/bolts_under_c"
              none="never"
              onset={(value) => set(crop, 'bolts_under_c', value)}
              onclear={() => set(crop, 'bolts_under_c', 'never')}
            />
            {#each fields as [field, label, quantity] (field)}
              <div>
                <NumberField
                  {label}
                  value={crop[field] as number}
                  {quantity}
                  field="/crops/*/{field}"
                  onset={(value) => set(crop, field, value)}
                />
                <span class="block truncate text-sm text-soft" title={library.sources[field]}
                  >{own.has(crop.id) ? 'your own figure' : library.sources[field]}</span
                >
              </div>
            {/each}
          </div>
          <div class="mt-2 flex gap-2">
            <button class="quiet border-line!" onclick={() => copy(crop)}
              >Copy as my own crop</button
            >
            {#if own.has(crop.id)}<button class="quiet border-line!" onclick={() => reset(crop)}
                >{library.crops.some((other) => other.id === crop.id)
                  ? 'Back to the library’s figures'
                  : 'Remove'}</button
              >{/if}
          </div>
        </div>
      {/if}
    </li>
  {:else}
    <li class="text-soft">No crop matches.</li>
  {/each}
  {#if found.length > MOST}<li class="border-t py-1 text-sm text-soft">
      and {found.length - MOST} more: write a part of its name
    </li>{/if}
</ul>
